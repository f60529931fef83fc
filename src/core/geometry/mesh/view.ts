import { cross, unit, type Vector } from './vector';

/** From where a part is looked at: two directions on the sheet and the one towards the eye. */
export interface View {
  right: Vector;
  up: Vector;
  toward: Vector;
}

/** The six views of a drawing (ISO 128-3), named by the side that is looked at; z is up. */
export const VIEW_NAMES = ['front', 'top', 'left', 'right', 'back', 'bottom'] as const;

export type ViewName = (typeof VIEW_NAMES)[number];

export const VIEWS: Readonly<Record<ViewName, View>> = {
  front: { right: [1, 0, 0], up: [0, 0, 1], toward: [0, -1, 0] },
  back: { right: [-1, 0, 0], up: [0, 0, 1], toward: [0, 1, 0] },
  left: { right: [0, -1, 0], up: [0, 0, 1], toward: [-1, 0, 0] },
  right: { right: [0, 1, 0], up: [0, 0, 1], toward: [1, 0, 0] },
  top: { right: [1, 0, 0], up: [0, 1, 0], toward: [0, 0, 1] },
  bottom: { right: [1, 0, 0], up: [0, -1, 0], toward: [0, 0, -1] },
};

/**
 * The view from any side.
 *
 * @param azimuth degrees about z, 0 = from the front, counted towards the right side
 * @param elevation degrees above the plate, −90 … 90
 */
export function viewFrom(azimuth: number, elevation: number): View {
  const a = (azimuth * Math.PI) / 180;
  const e = (elevation * Math.PI) / 180;
  const toward = unit([Math.sin(a) * Math.cos(e), -Math.cos(a) * Math.cos(e), Math.sin(e)]);
  const right: Vector = [Math.cos(a), Math.sin(a), 0];
  return { right, up: cross(toward, right), toward };
}

import { type MeshSheet, type Vector, vectorOf } from '../../core/geometry/mesh';

/** The sides that a working drawing shows, in first-angle arrangement. */
export const SHOWN_SIDES = ['front', 'left', 'top'] as const;

export type ShownSide = (typeof SHOWN_SIDES)[number];

/** The drawings of these sides. */
export type ShownSides = Pick<MeshSheet['sides'], ShownSide>;

/** A dimension to be drawn: what is written on it and between which places it runs. */
export interface DrawnDimension {
  id: string;
  label: string;
  kind: string;
  from: Vector;
  to: Vector;
}

/** A dimension line on one side's sheet: u to the right, v downwards, mm. */
export interface DimensionLine {
  id: string;
  label: string;
  side: ShownSide;
  /** Both ends of the line itself. */
  line: readonly [number, number, number, number];
  /** Lines that lead from the part to the ends. */
  leads: readonly (readonly [number, number, number, number])[];
  at: readonly [number, number];
  isUpright: boolean;
}

export interface Box {
  left: number;
  top: number;
  width: number;
  height: number;
}

/** Where a place lies on a side's sheet. */
export function onSheet(side: ShownSide, [x, y, z]: Vector): [number, number] {
  if (side === 'front') return [x, -z];
  return side === 'left' ? [-y, -z] : [x, -y];
}

/** The side on which the steps of a ladder are seen. */
export const sideOfLadder = (quantity: string): ShownSide =>
  quantity === 'bridge' ? 'front' : 'top';

/** The side on which a dimension is drawn: where its length is seen, and what it measures is open. */
export function sideOf({ kind, from, to }: DrawnDimension): ShownSide {
  const [dx, dy, dz] = vectorOf((at) => Math.abs(to[at] - from[at]));
  if (dz > 1e-6) return dx > 1e-6 || dy <= 1e-6 ? 'front' : 'left';
  const isInThePlate = kind === 'hole' || kind === 'boss' || kind === 'internal' || dy > 1e-6;
  return isInThePlate ? 'top' : 'front';
}

const isInPlace = (kind: string) => kind === 'hole' || kind === 'internal' || kind === 'boss';

/**
 * Lays out dimension lines round a side: lengths outside it, the shortest nearest and none over
 * another; holes, bosses and gaps where they are.
 *
 * @param pitch from one line to the next, mm on the sheet
 */
export function layOut(
  dimensions: readonly DrawnDimension[],
  side: ShownSide,
  box: Box,
  pitch: number,
): DimensionLine[] {
  const levels: Record<'above' | 'below' | 'left' | 'right', [number, number][][]> = {
    above: [],
    below: [],
    left: [],
    right: [],
  };
  const free = (where: keyof typeof levels, low: number, high: number): number => {
    const rows = levels[where];
    const at = rows.findIndex((row) =>
      row.every(([from, to]) => high < from - pitch / 2 || low > to + pitch / 2),
    );
    const level = at < 0 ? rows.length : at;
    (rows[level] ??= []).push([low, high]);
    return level + 1;
  };
  const [right, bottom] = [box.left + box.width, box.top + box.height];
  const lengthOf = ({ from, to }: DrawnDimension) =>
    Math.hypot(...from.map((value, at) => (to[at] ?? 0) - value));
  return dimensions
    .filter((dimension) => sideOf(dimension) === side)
    .sort((a, b) => lengthOf(a) - lengthOf(b))
    .map((dimension) => {
      const { id, label, kind } = dimension;
      const [u1, v1] = onSheet(side, dimension.from);
      const [u2, v2] = onSheet(side, dimension.to);
      const isFlat = Math.abs(v2 - v1) < 1e-6;
      const isUpright = Math.abs(u2 - u1) < 1e-6;
      const whole = { id, label, side, isUpright: isUpright && !isInPlace(kind) };
      if (isInPlace(kind) || !(isFlat || isUpright)) {
        // Beside the hole or gap, so that neither hides the other.
        const beyond = isInPlace(kind) ? Math.hypot(u2 - u1, v2 - v1) / 2 : 0;
        const at = isUpright
          ? ([u1 + beyond + pitch * 0.25, (v1 + v2) / 2 + pitch * 0.2] as const)
          : ([(u1 + u2) / 2, Math.max(v1, v2) + beyond + pitch * 0.7] as const);
        return { ...whole, line: [u1, v1, u2, v2] as const, leads: [], at };
      }
      if (isFlat) {
        const isAbove = v1 < box.top + box.height / 2;
        const level = free(isAbove ? 'above' : 'below', Math.min(u1, u2), Math.max(u1, u2));
        const v = isAbove ? box.top - level * pitch : bottom + level * pitch;
        const over = (isAbove ? -0.2 : 0.2) * pitch;
        return {
          ...whole,
          line: [u1, v, u2, v] as const,
          leads: [
            [u1, v1, u1, v + over],
            [u2, v2, u2, v + over],
          ] as const,
          at: [(u1 + u2) / 2, v - 0.18 * pitch] as const,
        };
      }
      const isLeft = u1 < box.left + box.width / 2;
      const level = free(isLeft ? 'left' : 'right', Math.min(v1, v2), Math.max(v1, v2));
      const u = isLeft ? box.left - level * pitch : right + level * pitch;
      const over = (isLeft ? -0.2 : 0.2) * pitch;
      return {
        ...whole,
        line: [u, v1, u, v2] as const,
        leads: [
          [u1, v1, u + over, v1],
          [u2, v2, u + over, v2],
        ] as const,
        at: [u - 0.18 * pitch, (v1 + v2) / 2] as const,
      };
    });
}

/** A side with its dimension lines, and the box that holds both. */
export interface LaidOutSide {
  side: ShownSide;
  lines: DimensionLine[];
  box: Box;
  around: Box;
}

/** Lays out some sides of a part; the box round each has room for what is written. */
export function layOutSides(
  sides: ShownSides,
  dimensions: readonly DrawnDimension[],
  shown: readonly ShownSide[],
  pitch: number,
): LaidOutSide[] {
  return shown.map((side) => {
    const { box } = sides[side];
    const lines = layOut(dimensions, side, box, pitch);
    const us = [box.left, box.left + box.width, ...lines.flatMap(({ line }) => [line[0], line[2]])];
    const vs = [box.top, box.top + box.height, ...lines.flatMap(({ line }) => [line[1], line[3]])];
    const [left, top] = [Math.min(...us) - pitch, Math.min(...vs) - pitch];
    const around = {
      left,
      top,
      width: Math.max(...us) + pitch - left,
      height: Math.max(...vs) + pitch - top,
    };
    return { side, lines, box, around };
  });
}

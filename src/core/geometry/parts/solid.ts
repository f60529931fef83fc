import type { Vector } from '../mesh';

/** A solid as it is thought of, before anything computes its surface; mm, z is up. */
export type Solid =
  | { shape: 'box'; at: Vector; size: Vector }
  /** Upright; `bottom` and `top` are its radii. */
  | { shape: 'cone'; at: Vector; height: number; bottom: number; top: number }
  /** A closed outline in x and z, counter-clockwise as seen from the front, made `depth` deep along y. */
  | { shape: 'profile'; at: Vector; outline: readonly (readonly [number, number])[]; depth: number }
  /** A solid turned about the vertical line through the origin, in degrees, then moved. */
  | { shape: 'turned'; solid: Solid; degrees: number; at: Vector }
  | { shape: 'union'; solids: readonly Solid[] }
  | { shape: 'difference'; from: Solid; cut: readonly Solid[] };

/** A box from its lowest corner. */
export const box = (x: number, y: number, z: number, w: number, d: number, h: number): Solid => ({
  shape: 'box',
  at: [x, y, z],
  size: [w, d, h],
});

/** An upright cylinder from the middle of its foot. */
export const cylinder = (
  x: number,
  y: number,
  z: number,
  radius: number,
  height: number,
): Solid => ({
  shape: 'cone',
  at: [x, y, z],
  height,
  bottom: radius,
  top: radius,
});

export const union = (...solids: Solid[]): Solid => ({ shape: 'union', solids });

export const difference = (from: Solid, ...cut: Solid[]): Solid => ({
  shape: 'difference',
  from,
  cut,
});

/** A place or a direction: x, y, z in mm or without unit. */
export type Vector = readonly [number, number, number];

export const dot = (a: Vector, b: Vector): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];

export const minus = (a: Vector, b: Vector): Vector => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];

export const cross = (a: Vector, b: Vector): Vector => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];

/** A vector from what each of its axes comes to. */
export const vectorOf = (valueAt: (axis: 0 | 1 | 2) => number): Vector => [
  valueAt(0),
  valueAt(1),
  valueAt(2),
];

/** The direction of a vector; of one without length, nought. */
export function unit(a: Vector): Vector {
  const length = Math.hypot(...a);
  return length > 0 ? [a[0] / length, a[1] / length, a[2] / length] : [0, 0, 0];
}

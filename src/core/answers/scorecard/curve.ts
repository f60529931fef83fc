/** A value curve: `[value, utility]`, at least two, ascending in value, utility 0…1. */
export type Curve = readonly (readonly [number, number])[];

/** What a value is worth: linear between the points of a curve, constant outside; ±∞ too. */
export function utilityAt(curve: Curve, value: number): number {
  const [first] = curve;
  const last = curve.at(-1);
  if (!first || !last) return 0;
  if (value <= first[0]) return first[1];
  if (value >= last[0]) return last[1];
  let at = 1;
  while ((curve[at]?.[0] ?? Infinity) < value) at += 1;
  const [x0, u0] = curve[at - 1] ?? first;
  const [x1, u1] = curve[at] ?? last;
  return u0 + ((u1 - u0) * (value - x0)) / (x1 - x0);
}

/**
 * The largest value at or above 0 that is worth at least so much.
 *
 * @returns `Infinity` where there is no largest, null where no value is worth it
 */
export function largestWorth(curve: Curve, least: number): number | null {
  const isWorth = (utility: number) => utility >= least - 1e-12;
  const last = curve.at(-1);
  if (!last) return null;
  if (isWorth(last[1])) return Infinity;
  // From the right: where a point is worth it and the next is not, the largest lies between.
  for (let at = curve.length - 1; at > 0; at -= 1) {
    const [x1, u1] = curve[at] ?? last;
    const [x0, u0] = curve[at - 1] ?? last;
    if (!isWorth(u0)) continue;
    const crossing = x0 + ((u0 - least) / (u0 - u1)) * (x1 - x0);
    return crossing >= 0 ? crossing : null;
  }
  return null;
}

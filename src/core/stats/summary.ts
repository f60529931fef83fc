/** Sum by Neumaier's compensated summation, so that the order of the values does not show. */
export function sum(values: readonly number[]): number {
  let total = 0;
  let lost = 0;
  for (const value of values) {
    const next = total + value;
    lost += Math.abs(total) >= Math.abs(value) ? total - next + value : value - next + total;
    total = next;
  }
  return total + lost;
}

/** Arithmetic mean of at least one value. */
export function mean(values: readonly number[]): number {
  if (values.length === 0) throw new RangeError('the mean of nothing is not defined');
  return sum(values) / values.length;
}

/** Arithmetic mean, or null of an empty list. */
export const meanOrNull = (values: readonly number[]): number | null =>
  values.length === 0 ? null : mean(values);

/** Sum of squared deviations from the mean. */
export function sumOfSquares(values: readonly number[]): number {
  if (values.length < 2) return 0;
  const centre = mean(values);
  return sum(values.map((value) => (value - centre) ** 2));
}

/**
 * Percentile of type 7 (linear between order statistics): at (n − 1)·p.
 *
 * @param p share in 0…1
 * @see Hyndman and Fan, Sample quantiles in statistical packages, 1996
 */
export function percentile(values: readonly number[], p: number): number {
  if (values.length === 0) throw new RangeError('a percentile of nothing is not defined');
  const sorted = Float64Array.from(values).sort();
  const at = (sorted.length - 1) * p;
  const below = Math.floor(at);
  const low = sorted[below] ?? 0;
  const high = sorted[Math.min(below + 1, sorted.length - 1)] ?? low;
  return low + (at - below) * (high - low);
}

/** The median. */
export const median = (values: readonly number[]): number => percentile(values, 0.5);

/** The median, or null of an empty list. */
export const medianOrNull = (values: readonly number[]): number | null =>
  values.length === 0 ? null : median(values);

/** The largest of absolute values; 0 of an empty list. */
export const maxAbs = (values: readonly number[]): number =>
  values.reduce((largest, value) => Math.max(largest, Math.abs(value)), 0);

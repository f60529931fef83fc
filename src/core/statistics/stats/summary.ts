/**
 * Sum of what each item comes to, by Neumaier's compensated summation, so that the order of the items does
 * not show. Millions pass here, in lists of every kind: an iterator would make an object of each, and a
 * list of the values would be thrown away.
 *
 * @see Neumaier, 1974
 * @example sumOf([1e16, 1, -1e16], (value) => value) // 1
 */
export function sumOf<Item>(items: readonly Item[], valueOf: (item: Item) => number): number {
  let total = 0;
  let lost = 0;
  for (let at = 0; at < items.length; at += 1) {
    const value = valueOf(items[at]!);
    const next = total + value;
    lost += Math.abs(total) >= Math.abs(value) ? total - next + value : value - next + total;
    total = next;
  }
  return total + lost;
}

const itself = (value: number): number => value;

/**
 * Sum of values, as `sumOf` does it.
 *
 * @example sum([0.1, 0.2, 0.3]) // 0.6
 */
export const sum = (values: readonly number[]): number => sumOf(values, itself);

/**
 * Arithmetic mean of what at least one item comes to.
 *
 * @throws RangeError of none
 * @example meanOf(['a', 'bcd'], (text) => text.length) // 2
 */
export function meanOf<Item>(items: readonly Item[], valueOf: (item: Item) => number): number {
  if (items.length === 0) throw new RangeError('the mean of nothing is not defined');
  return sumOf(items, valueOf) / items.length;
}

/**
 * Arithmetic mean of at least one value.
 *
 * @throws RangeError of none
 * @example mean([1, 2, 6]) // 3
 */
export const mean = (values: readonly number[]): number => meanOf(values, itself);

/**
 * Arithmetic mean, or null of an empty list.
 *
 * @example meanOrNull([]) // null
 */
export const meanOrNull = (values: readonly number[]): number | null =>
  values.length === 0 ? null : mean(values);

/**
 * Sum of squared deviations from the mean.
 *
 * @returns squared units; 0 of fewer than two
 * @example sumOfSquares([1, 2, 3]) // 2
 */
export function sumOfSquares(values: readonly number[]): number {
  if (values.length < 2) return 0;
  const centre = mean(values);
  return sumOf(values, (value) => (value - centre) ** 2);
}

/**
 * Percentile of type 7 (linear between order statistics): at (n − 1)·p.
 *
 * @param p share in 0…1
 * @see Hyndman and Fan, Sample quantiles in statistical packages, 1996
 * @throws RangeError of none
 * @example percentile([1, 2, 3, 10], 0.25) // 1.75
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

/**
 * The median.
 *
 * @throws RangeError of none
 * @example median([10, 1, 3]) // 3
 */
export const median = (values: readonly number[]): number => percentile(values, 0.5);

/**
 * The median of many values, which it moves about: no order is made that is not needed.
 *
 * @see Hoare, Algorithm 65: Find, 1961
 * @throws RangeError of none
 * @example medianInPlace(Float64Array.of(4, 1, 3, 2)) // 2.5
 */
export function medianInPlace(values: Float64Array): number {
  if (values.length === 0) throw new RangeError('a median of nothing is not defined');
  const upper = values.length >> 1;
  const high = selected(values, upper);
  if (values.length % 2 === 1) return high;
  let low = -Infinity;
  for (let at = 0; at < upper; at += 1) low = Math.max(low, values[at] ?? 0);
  return low + (high - low) / 2;
}

/** Puts the value of a rank in its place, what is not above it before it, and returns it. */
function selected(values: Float64Array, rank: number): number {
  let [left, right] = [0, values.length - 1];
  while (left < right) {
    const pivot = values[(left + right) >> 1] ?? 0;
    let [up, down] = [left, right];
    while (up <= down) {
      while ((values[up] ?? 0) < pivot) up += 1;
      while ((values[down] ?? 0) > pivot) down -= 1;
      if (up > down) break;
      const own = values[up] ?? 0;
      values[up] = values[down] ?? 0;
      values[down] = own;
      up += 1;
      down -= 1;
    }
    if (rank <= down) right = down;
    else if (rank >= up) left = up;
    else break;
  }
  return values[rank] ?? 0;
}

/**
 * The median, or null of an empty list.
 *
 * @example medianOrNull([]) // null
 */
export const medianOrNull = (values: readonly number[]): number | null =>
  values.length === 0 ? null : median(values);

/**
 * The largest of absolute values; 0 of an empty list.
 *
 * @example maxAbs([-3, 2]) // 3
 */
export const maxAbs = (values: readonly number[]): number =>
  values.reduce((largest, value) => Math.max(largest, Math.abs(value)), 0);

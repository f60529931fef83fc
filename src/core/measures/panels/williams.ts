/**
 * Orders of `count` things in which each thing stands in each place, and directly after each other thing, equally
 * often: one square where their number is even, a square and its mirror image where it is odd.
 *
 * @returns rows of places 0 … count − 1
 * @see Williams, 1949
 */
export function williamsRows(count: number): number[][] {
  // 0, 1, n − 1, 2, n − 2 …: no difference between neighbours comes twice.
  const first = Array.from({ length: count }, (_, at) =>
    at % 2 === 1 ? (at + 1) / 2 : (count - at / 2) % count,
  );
  const square = Array.from({ length: count }, (_, row) =>
    first.map((thing) => (thing + row) % count),
  );
  if (count % 2 === 0 || count === 1) return square;
  return [...square, ...square.map((row) => row.toReversed())];
}

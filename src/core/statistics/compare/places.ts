/** What is known of one of several that are put in order. */
export interface Placed {
  estimate: number | null;
  low: number | null;
  high: number | null;
}

/** From which place to which one stands, by what is known: `[1, 6]` where six cannot be told apart. */
export type Places = readonly [from: number, to: number];

/**
 * The places of each, where two are told apart only if their intervals do not meet; an unknown interval reaches
 * everywhere. What has no estimate has no place.
 *
 * @example placesOf([{ estimate: 1, low: 0, high: 2 }, { estimate: 5, low: 4, high: 6 }], true)
 * // [[2, 2], [1, 1]]
 */
export function placesOf(all: readonly Placed[], isLargerBetter: boolean): (Places | null)[] {
  const known = all.filter((one) => one.estimate !== null);
  return all.map((own) => {
    if (own.estimate === null) return null;
    const better = known.filter((other) => isBeyond(other, own, isLargerBetter)).length;
    const worse = known.filter((other) => isBeyond(own, other, isLargerBetter)).length;
    return [1 + better, known.length - worse];
  });
}

/** Whether one is better than another by more than both intervals. */
function isBeyond(one: Placed, other: Placed, isLargerBetter: boolean): boolean {
  if (one.low === null || one.high === null || other.low === null || other.high === null) {
    return false;
  }
  return isLargerBetter ? one.low > other.high : one.high < other.low;
}

/**
 * The places as they are written: `3`, or `1–6`.
 *
 * @example placesText([1, 6]) // '1–6'
 */
export const placesText = ([from, to]: Places): string =>
  from === to ? `${from}` : `${from}–${to}`;

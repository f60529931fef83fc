import { tQuantile } from '../stats';

/**
 * What can be said of a contender against the reference: `better`, `worse` (different and it
 * matters), `trivial` (different, and too little to matter), `indistinguishable` (equivalent),
 * `unsettled` (more prints are needed), `one_print` (no scatter to judge by).
 */
export type Verdict =
  'better' | 'worse' | 'trivial' | 'indistinguishable' | 'unsettled' | 'one_print';

/** Largest number of prints that is searched for. */
const MOST_PRINTS = 1e9;

export interface PrintsNeeded {
  /** s² of both sides, pooled. */
  variance: number;
  strata: number;
  /** The difference that is to be found. */
  delta: number;
  /** The error probability of one comparison. */
  alpha: number;
  /** The fewest prints that a side has of a stratum now. */
  fewestPrints: number;
}

/**
 * The smallest number of prints per contender and stratum with which a difference of `delta`
 * would be found with 80 % power and equivalence shown with 80 % power, and more than there are.
 *
 * @returns whole prints; null where more than a thousand million are needed
 * @example printsNeeded({ variance: 1, strata: 1, delta: 1, alpha: 0.05, fewestPrints: 2 }) // 18
 */
export const printsNeeded = (ask: PrintsNeeded): number | null =>
  fewestPrints(ask, (n, df) => {
    const difference = shareToFind(ask, df);
    const equivalence = (tQuantile(1 - ask.alpha, df) + tQuantile(0.9, df)) ** 2;
    return n >= unitOf(ask) * Math.max(difference, equivalence);
  });

/**
 * The smallest number of prints per contender and stratum with which a contender that is as good as
 * the other would be shown not to be worse by `delta` with 80 % power, and more than there are.
 *
 * @returns whole prints; null where more than a thousand million are needed
 * @example printsToShow({ variance: 1, strata: 1, delta: 1, alpha: 0.05, fewestPrints: 2 }) // 14
 */
export const printsToShow = (ask: PrintsNeeded): number | null =>
  fewestPrints(
    ask,
    (n, df) => n >= unitOf(ask) * (tQuantile(1 - ask.alpha, df) + tQuantile(0.8, df)) ** 2,
  );

/**
 * The smallest number of prints per contender and stratum with which a difference of `delta` would be
 * found with 80 % power, and more than there are.
 *
 * @returns whole prints; null where more than a thousand million are needed
 * @example printsToFind({ variance: 1, strata: 1, delta: 1, alpha: 0.05, fewestPrints: 2 }) // 17
 */
export const printsToFind = (ask: PrintsNeeded): number | null =>
  fewestPrints(ask, (n, df) => n >= unitOf(ask) * shareToFind(ask, df));

const shareToFind = ({ alpha }: PrintsNeeded, df: number): number =>
  (tQuantile(1 - alpha / 2, df) + tQuantile(0.8, df)) ** 2;

const unitOf = ({ variance, strata, delta }: PrintsNeeded): number =>
  (2 * variance) / (strata * delta ** 2);

/** The smallest number from 2 on that is enough, and more than the fewest now; null beyond all sense. */
function fewestPrints(
  { strata, fewestPrints: now }: PrintsNeeded,
  isEnoughAt: (n: number, df: number) => boolean,
): number | null {
  const isEnough = (n: number) => isEnoughAt(n, 2 * strata * (n - 1));
  let high = 2;
  while (!isEnough(high)) {
    high *= 2;
    if (high > MOST_PRINTS) return null;
  }
  let low = Math.max(1, high / 2);
  if (high === 2) low = 1;
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2);
    if (middle >= 2 && isEnough(middle)) high = middle;
    else low = middle;
  }
  return Math.max(high, now + 1);
}

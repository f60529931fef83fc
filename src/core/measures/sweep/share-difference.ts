import { ALLOWANCE } from '../../model/study';
import { clopperPearson, unknownInterval, type Interval } from '../../statistics/stats';

/** Successes of so many attempts. */
export interface Tally {
  good: number;
  prints: number;
}

/**
 * Difference of two shares with Newcombe's hybrid score interval, each share's own limits after
 * Clopper and Pearson.
 *
 * @param alpha intervals are two-sided 1 − alpha
 * @see Newcombe, Interval estimation for the difference between independent proportions, 1998
 * @example shareDifference({ good: 10, prints: 10 }, { good: 10, prints: 10 }, 0.05)
 * // { estimate: 0, low: -0.3085, high: 0.3085 }
 */
export function shareDifference(own: Tally, other: Tally, alpha: number): Interval {
  const [c, r] = [own, other].map(({ good, prints }) => clopperPearson(good, prints, alpha));
  const [p, l, u] = [c?.estimate ?? null, c?.low ?? null, c?.high ?? null];
  const [pr, lr, ur] = [r?.estimate ?? null, r?.low ?? null, r?.high ?? null];
  if (p === null || l === null || u === null || pr === null || lr === null || ur === null) {
    return unknownInterval('no print on a side');
  }
  const estimate = p - pr;
  return {
    estimate,
    low: estimate - Math.hypot(p - l, ur - pr),
    high: estimate + Math.hypot(u - p, pr - lr),
  };
}

/** Largest number of prints that is searched for. */
const MOST = 1e7;

/**
 * The smallest number of prints a side, all of them good, that shows a share not to be lower by
 * `delta`; null where more are needed than anybody prints.
 *
 * @param delta a share, 0…1
 * @param alpha one-sided
 * @example allGoodNeeded(0.1, 0.05) // 29
 */
export function allGoodNeeded(delta: number, alpha: number): number | null {
  // n of n against n of n: the lower end is alphaEach^(1/n) − 1, alphaEach one-sided.
  const isShown = (n: number) => {
    const all = { good: n, prints: n };
    return (shareDifference(all, all, 2 * alpha).low ?? -1) > -delta + ALLOWANCE;
  };
  let high = 1;
  while (!isShown(high)) {
    high *= 2;
    if (high > MOST) return null;
  }
  let low = Math.floor(high / 2);
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2);
    if (isShown(middle)) high = middle;
    else low = middle;
  }
  return high;
}

import { ALLOWANCE } from '../../model/study';
import { zQuantile } from '../../statistics/stats';

/**
 * How many prints of each of two machines would tell their shares of successes apart, with 80 %
 * power; null where the shares are the same.
 *
 * @param shares the two shares, 0…1
 * @see Fleiss, Statistical Methods for Rates and Proportions, chapter 3 (without continuity correction)
 * @example printsToTellApart([0.9, 0.5], 0.05) // 20
 */
export function printsToTellApart(shares: readonly [number, number], alpha: number): number | null {
  const [p1, p2] = shares;
  if (Math.abs(p1 - p2) < ALLOWANCE) return null;
  const middle = (p1 + p2) / 2;
  const needed =
    zQuantile(1 - alpha / 2) * Math.sqrt(2 * middle * (1 - middle)) +
    zQuantile(0.8) * Math.sqrt(p1 * (1 - p1) + p2 * (1 - p2));
  return Math.ceil((needed / (p1 - p2)) ** 2 - ALLOWANCE);
}

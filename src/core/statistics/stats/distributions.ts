import betaCdf from '@stdlib/stats-base-dists-beta-cdf';
import betaQuantile from '@stdlib/stats-base-dists-beta-quantile';
import chisquareQuantile from '@stdlib/stats-base-dists-chisquare-quantile';
import fCdf from '@stdlib/stats-base-dists-f-cdf';
import normalQuantile from '@stdlib/stats-base-dists-normal-quantile';
import studentCdf from '@stdlib/stats-base-dists-t-cdf';
import studentQuantile from '@stdlib/stats-base-dists-t-quantile';

/**
 * Quantile of Student's t with `df` degrees of freedom, at probability `p` in (0, 1).
 *
 * @param df over 0; outside of these it is NaN
 * @example tQuantile(0.975, 4) // 2.7764
 */
export const tQuantile = (p: number, df: number): number => studentQuantile(p, df);

/**
 * Two-sided p-value of a t statistic: P(|T| ≥ |t|).
 *
 * @param df over 0
 * @example tTwoSidedP(2.7764, 4) // 0.0500
 */
export const tTwoSidedP = (t: number, df: number): number =>
  Math.min(1, 2 * studentCdf(-Math.abs(t), df));

/**
 * Upper tail of F: P(F ≥ f) with `df1` and `df2` degrees of freedom.
 *
 * @param df1 over 0, as df2
 * @example fUpperP(4.2565, 2, 9) // 0.0500
 */
export function fUpperP(f: number, df1: number, df2: number): number {
  if (f <= 0) return 1;
  // The lower tail of 1/F with the degrees of freedom exchanged keeps small tails exact.
  return fCdf(1 / f, df2, df1);
}

/**
 * Quantile of the beta distribution.
 *
 * @param p in 0…1; a and b are over 0
 * @example betaQuantileOf(0.5, 1, 3) // 0.2063
 */
export const betaQuantileOf = (p: number, a: number, b: number): number => betaQuantile(p, a, b);

/**
 * Quantile of χ² with `df` degrees of freedom.
 *
 * @param p in 0…1; df is over 0
 * @example chiSquareQuantile(0.95, 3) // 7.8147
 */
export const chiSquareQuantile = (p: number, df: number): number => chisquareQuantile(p, df);

/**
 * Quantile of the standard normal distribution.
 *
 * @param p in (0, 1)
 * @example zQuantile(0.975) // 1.95996
 */
export const zQuantile = (p: number): number => normalQuantile(p, 0, 1);

/**
 * Upper tail of the binomial distribution: P(X ≥ k) of `n` trials at probability `p`, k ≤ n.
 *
 * @example binomialUpperP(8, 10, 0.5) // 0.0547
 */
export const binomialUpperP = (k: number, n: number, p: number): number =>
  k <= 0 ? 1 : betaCdf(p, k, n - k + 1);

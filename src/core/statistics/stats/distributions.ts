import betaCdf from '@stdlib/stats-base-dists-beta-cdf';
import betaQuantile from '@stdlib/stats-base-dists-beta-quantile';
import chisquareQuantile from '@stdlib/stats-base-dists-chisquare-quantile';
import fCdf from '@stdlib/stats-base-dists-f-cdf';
import normalQuantile from '@stdlib/stats-base-dists-normal-quantile';
import studentCdf from '@stdlib/stats-base-dists-t-cdf';
import studentQuantile from '@stdlib/stats-base-dists-t-quantile';

/** Quantile of Student's t with `df` degrees of freedom, at probability `p` in (0, 1). */
export const tQuantile = (p: number, df: number): number => studentQuantile(p, df);

/** Two-sided p-value of a t statistic: P(|T| ≥ |t|). */
export const tTwoSidedP = (t: number, df: number): number =>
  Math.min(1, 2 * studentCdf(-Math.abs(t), df));

/** Upper tail of F: P(F ≥ f) with `df1` and `df2` degrees of freedom. */
export function fUpperP(f: number, df1: number, df2: number): number {
  if (f <= 0) return 1;
  // The lower tail of 1/F with the degrees of freedom exchanged keeps small tails exact.
  return fCdf(1 / f, df2, df1);
}

/** Quantile of the beta distribution. */
export const betaQuantileOf = (p: number, a: number, b: number): number => betaQuantile(p, a, b);

/** Quantile of χ² with `df` degrees of freedom. */
export const chiSquareQuantile = (p: number, df: number): number => chisquareQuantile(p, df);

/** Quantile of the standard normal distribution. */
export const zQuantile = (p: number): number => normalQuantile(p, 0, 1);

/** Upper tail of the binomial distribution: P(X ≥ k) of `n` trials at probability `p`, k ≤ n. */
export const binomialUpperP = (k: number, n: number, p: number): number =>
  k <= 0 ? 1 : betaCdf(p, k, n - k + 1);

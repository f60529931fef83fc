import { ALLOWANCE } from '../../model/study';
import { printMean, tQuantile, type PrintValues } from '../../statistics/stats';

/** How much prints of one contender and artefact scatter. */
export interface Scatter {
  /** Variance between prints, pooled over contenders and artefacts. */
  variance: number;
  /** Its degrees of freedom. */
  df: number;
  /** Artefacts on which the figure is known. */
  artefacts: number;
}

/** Pools the scatter of prints about the mean of their contender and artefact; null without any. */
export function pooledScatter(contenders: readonly PrintValues[]): Scatter | null {
  let squares = 0;
  let df = 0;
  const artefacts = new Set<string>();
  for (const values of contenders) {
    if (values.size === 0) continue;
    const own = printMean(values);
    squares += own.squares;
    df += own.df;
    for (const artefact of values.keys()) artefacts.add(artefact);
  }
  return df > 0 ? { variance: squares / df, df, artefacts: artefacts.size } : null;
}

/**
 * The difference between two contenders that so many prints each would find with 80 % power:
 * `√(2s²/(F·n))·(t(1 − α/2; ν) + t(0.8; ν))`, ν = 2F(n − 1).
 *
 * @param prints n, prints of each contender on each artefact, at least 2
 * @param alpha error probability of one comparison
 */
export function detectableDifference(
  { variance, artefacts }: Scatter,
  prints: number,
  alpha: number,
): number {
  const df = 2 * artefacts * (prints - 1);
  const quantiles = tQuantile(1 - alpha / 2, df) + tQuantile(0.8, df);
  return Math.sqrt((2 * variance) / (artefacts * prints)) * quantiles;
}

/** An allowance for rounding, so that an exact power needs no print more. */

/**
 * How many prints in a row must succeed to say "at least this reliable, with this confidence":
 * `ceil(ln(1 − C)/ln R)`.
 *
 * @param reliability share of successes that is to be shown, in 0…1
 * @param confidence in 0…1
 */
export const successesInARow = (reliability: number, confidence: number): number =>
  Math.ceil(Math.log(1 - confidence) / Math.log(reliability) - ALLOWANCE);

import { betaQuantileOf, chiSquareQuantile, zQuantile } from './distributions';
import { unknownInterval, type Interval } from './interval';

/**
 * Share of successes with the exact Clopper–Pearson interval.
 *
 * @see Clopper and Pearson, The use of confidence or fiducial limits, 1934
 * @param successes whole, 0…trials
 * @param alpha the interval is two-sided 1 − alpha
 * @returns shares, 0…1; nothing known of no trials
 * @example clopperPearson(9, 10, 0.05) // { estimate: 0.9, low: 0.5550, high: 0.9975 }
 */
export function clopperPearson(successes: number, trials: number, alpha: number): Interval {
  if (trials === 0) return unknownInterval('no trials');
  return {
    estimate: successes / trials,
    low: successes === 0 ? 0 : betaQuantileOf(alpha / 2, successes, trials - successes + 1),
    high:
      successes === trials ? 1 : betaQuantileOf(1 - alpha / 2, successes + 1, trials - successes),
  };
}

/**
 * Share of successes with Wilson's score interval.
 *
 * @see Wilson, Probable inference, the law of succession, and statistical inference, 1927
 * @param successes whole, 0…trials
 * @param alpha the interval is two-sided 1 − alpha
 * @returns shares, 0…1; nothing known of no trials
 * @example wilson(9, 10, 0.05) // { estimate: 0.9, low: 0.5958, high: 0.9821 }
 */
export function wilson(successes: number, trials: number, alpha: number): Interval {
  if (trials === 0) return unknownInterval('no trials');
  const z2 = zQuantile(1 - alpha / 2) ** 2;
  const share = successes / trials;
  const centre = (share + z2 / (2 * trials)) / (1 + z2 / trials);
  const half =
    (Math.sqrt(z2) / (1 + z2 / trials)) *
    Math.sqrt((share * (1 - share)) / trials + z2 / (4 * trials ** 2));
  return {
    estimate: share,
    low: successes === 0 ? 0 : centre - half,
    high: successes === trials ? 1 : centre + half,
  };
}

/**
 * Events per unit of exposure with the exact Poisson interval from χ² quantiles.
 *
 * @param exposure in units of the rate, over 0
 * @see Garwood, Fiducial limits for the Poisson distribution, 1936
 * @param alpha the interval is two-sided 1 − alpha
 * @returns nothing known without exposure
 * @example poissonRate(3, 100, 0.05) // { estimate: 0.03, low: 0.0062, high: 0.0877 }
 */
export function poissonRate(events: number, exposure: number, alpha: number): Interval {
  if (exposure <= 0) return unknownInterval('no hours');
  return {
    estimate: events / exposure,
    low: events === 0 ? 0 : chiSquareQuantile(alpha / 2, 2 * events) / 2 / exposure,
    high: chiSquareQuantile(1 - alpha / 2, 2 * events + 2) / 2 / exposure,
  };
}

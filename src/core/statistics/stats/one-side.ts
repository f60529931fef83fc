import { tQuantile } from './distributions';
import { unknownInterval, type Interval } from './interval';
import { combineVariance, printMean, type PrintValues } from './print-means';

const NO_INTERVAL_NOTE = 'one print per artefact and material: no interval';

/**
 * A contender's figure by the one-side rule: the mean over strata of the stratum means, with a
 * two-sided interval from t at 1 − alpha.
 *
 * @param values per-print values by stratum; none gives an unknown interval
 * @returns in the unit of the values; without ends where no stratum has two prints
 * @example oneSideInterval(new Map([['tile', [1, 2, 3]]]), 0.05)
 * // { estimate: 2, low: -0.4841, high: 4.4841 }
 */
export function oneSideInterval(values: PrintValues, alpha: number): Interval {
  if (values.size === 0) return unknownInterval('no print has a value');
  const mean = printMean(values);
  const { estimate } = mean;
  if (!mean.terms) return { estimate, low: null, high: null, notes: [NO_INTERVAL_NOTE] };
  const combined = combineVariance([mean]);
  if (combined.isZero) return { estimate, low: estimate, high: estimate };
  const half = tQuantile(1 - alpha / 2, combined.df) * Math.sqrt(combined.variance);
  return { estimate, low: estimate - half, high: estimate + half };
}

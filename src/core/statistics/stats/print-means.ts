import { maxAbs, mean, meanOf, sumOfSquares } from './summary';

/**
 * Values of prints, grouped by stratum (an artefact in a type of material): the sample of every
 * figure of a contender.
 */
export type PrintValues = ReadonlyMap<string, readonly number[]>;

/**
 * Puts the values of prints together by stratum, in the order in which they come.
 *
 * @example gatherValues([['tile', 1], ['clip', 2], ['tile', 3]]) // new Map([['tile', [1, 3]], ['clip', [2]]])
 */
export function gatherValues(
  all: Iterable<readonly [stratum: string, value: number]>,
): PrintValues {
  const values = new Map<string, number[]>();
  for (const [stratum, value] of all) {
    const own = values.get(stratum);
    if (own) own.push(value);
    else values.set(stratum, [value]);
  }
  return values;
}

/** One stratum's part in the variance of a contender's figure. */
interface VarianceTerm {
  /** Variance of the stratum's mean. */
  variance: number;
  /** Degrees of freedom that it was estimated with. */
  df: number;
}

/** The mean over strata of the stratum means, with what its uncertainty is made of. */
export interface PrintMean {
  estimate: number;
  /** How many strata take part. */
  strata: number;
  /** Squared deviations from the stratum means, over all strata. */
  squares: number;
  /** Degrees of freedom of `squares`: prints less strata. */
  df: number;
  /** Null where every stratum has one print. */
  terms: readonly VarianceTerm[] | null;
  /** Largest absolute value, the scale against which a variance counts as zero. */
  scale: number;
  /** The fewest prints of a stratum. */
  fewestPrints: number;
}

/**
 * The one-side rule: every stratum counts the same; its mean's variance is `s²/n`, and a
 * stratum with one print borrows the s² pooled over the others.
 *
 * @param values per-print values by stratum, at least one, none empty
 * @throws RangeError of none, or of a stratum without a print
 * @example printMean(new Map([['tile', [1, 2, 3]], ['clip', [6]]])) // { estimate: 4, strata: 2, df: 2 }
 */
export function printMean(values: PrintValues): PrintMean {
  const groups = [...values.values()];
  if (groups.length === 0 || groups.some((group) => group.length === 0)) {
    throw new RangeError('a print mean needs at least one print of every stratum');
  }
  const squaresOf = groups.map(sumOfSquares);
  const squares = squaresOf.reduce((total, part) => total + part, 0);
  const df = groups.reduce((total, group) => total + group.length - 1, 0);
  const terms = groups.map((group, at): VarianceTerm => {
    const own = group.length - 1;
    return own > 0
      ? { variance: (squaresOf[at] ?? 0) / own / group.length, df: own }
      : { variance: squares / df, df };
  });
  return {
    estimate: meanOf(groups, mean),
    strata: groups.length,
    squares,
    df,
    terms: df > 0 ? terms : null,
    scale: maxAbs(groups.flat()),
    fewestPrints: Math.min(...groups.map((group) => group.length)),
  };
}

/** Variance and Satterthwaite's degrees of freedom of a sum or difference of print means. */
export interface CombinedVariance {
  variance: number;
  /** Not defined (NaN) where the variance is zero. */
  df: number;
  /** Whether the variance is zero but for rounding. */
  isZero: boolean;
}

/**
 * Combines the variance terms of one or more print means over the same number of strata.
 *
 * @see Satterthwaite, An approximate distribution of estimates of variance components, 1946
 * @returns squared units of the values
 * @example combineVariance([printMean(new Map([['tile', [1, 2, 3]]]))]) // { variance: 0.3333, df: 2 }
 */
export function combineVariance(means: readonly PrintMean[]): CombinedVariance {
  let variance = 0;
  let denominator = 0;
  let scale = 0;
  for (const part of means) {
    const share = part.strata ** 2;
    scale = Math.max(scale, part.scale);
    for (const term of part.terms ?? []) {
      variance += term.variance / share;
      denominator += (term.variance / share) ** 2 / term.df;
    }
  }
  const isZero = variance <= (1e-12 * scale) ** 2;
  return { variance, df: variance ** 2 / denominator, isZero };
}

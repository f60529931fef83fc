import { maxAbs, mean, meanOf, sumOfSquares } from './summary';

/** Values of prints, grouped by artefact: the sample of every figure of a contender. */
export type PrintValues = ReadonlyMap<string, readonly number[]>;

/** One artefact's part in the variance of a contender's figure. */
interface VarianceTerm {
  /** Variance of the artefact's mean. */
  variance: number;
  /** Degrees of freedom that it was estimated with. */
  df: number;
}

/** The mean over artefacts of the artefact means, with what its uncertainty is made of. */
export interface PrintMean {
  estimate: number;
  /** How many artefacts take part. */
  artefacts: number;
  /** Squared deviations from the artefact means, over all artefacts. */
  squares: number;
  /** Degrees of freedom of `squares`: prints less artefacts. */
  df: number;
  /** Null where every artefact has one print. */
  terms: readonly VarianceTerm[] | null;
  /** Largest absolute value, the scale against which a variance counts as zero. */
  scale: number;
  /** The fewest prints on an artefact. */
  fewestPrints: number;
}

/**
 * The one-side rule: every artefact counts the same; its mean's variance is `s²/n`, and an
 * artefact with one print borrows the s² pooled over the others.
 *
 * @param values per-print values by artefact, at least one artefact, none empty
 */
export function printMean(values: PrintValues): PrintMean {
  const groups = [...values.values()];
  if (groups.length === 0 || groups.some((group) => group.length === 0)) {
    throw new RangeError('a print mean needs at least one print on every artefact');
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
    artefacts: groups.length,
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
 * Combines the variance terms of one or more print means over the same number of artefacts.
 *
 * @see Satterthwaite, An approximate distribution of estimates of variance components, 1946
 */
export function combineVariance(means: readonly PrintMean[]): CombinedVariance {
  let variance = 0;
  let denominator = 0;
  let scale = 0;
  for (const part of means) {
    const share = part.artefacts ** 2;
    scale = Math.max(scale, part.scale);
    for (const term of part.terms ?? []) {
      variance += term.variance / share;
      denominator += (term.variance / share) ** 2 / term.df;
    }
  }
  const isZero = variance <= (1e-12 * scale) ** 2;
  return { variance, df: variance ** 2 / denominator, isZero };
}

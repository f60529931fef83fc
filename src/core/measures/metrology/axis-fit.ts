import {
  combinationVariance,
  fUpperP,
  leastSquares,
  mapInterval,
  mapIntervalReversed,
  meanOf,
  sum,
  sumOf,
  tQuantile,
  tTwoSidedP,
  type Interval,
  type LeastSquares,
} from '../../statistics/stats';
import type { DimensionKind } from '../../model/study';

/** A dimension's mean deviation on one axis, the observation that the fit is made of. */
export interface AxisPoint {
  nominal_mm: number;
  kind: Exclude<DimensionKind, 'diagonal'>;
  deviation_mm: number;
}

export type FitTerm = 'scale' | 'offset' | 'hole_offset';

/** What to change so that the errors that are beyond the noise go away. */
export interface Advice {
  /** The errors that are beyond the noise. */
  terms: FitTerm[];
  /** Factor to draw the axis with; 1 is as it is. */
  scale_to_enter: Interval | null;
  /** To add to each wall outside, mm; negative shrinks. */
  wall_compensation_mm: Interval | null;
  /** To add to each wall of a hole, mm: what to enter where holes have a setting of their own. */
  hole_compensation_mm: Interval | null;
  /** What holes need beyond the walls’ compensation, mm a wall; null without holes. */
  hole_extra_mm: Interval | null;
  /** Mean absolute deviation of the axis as it is, mm. */
  mae_before_mm: number;
  /** The same with the advice taken, by the fit, mm. */
  mae_after_mm: number;
  /** Conditions of the advice, in words. */
  notes: string[];
}

/** Why a contender is off along an axis. */
export interface AxisFit {
  /** Dimensions fitted: a mean deviation each. */
  n: number;
  /** Relative error of length, 1 is none. */
  scale: Interval | null;
  /** Constant error of outside lengths, mm. */
  offset_mm: Interval | null;
  /** What holes lose beyond that, mm. */
  hole_offset_mm: Interval | null;
  /** Mean absolute deviation that the fit leaves, mm. */
  residual_mae_mm: number | null;
  /** What to change; null where nothing can be said. */
  advice: Advice | null;
  /** Why a term was left out, in words. */
  notes: string[];
}

const COLUMN: Record<FitTerm, (point: AxisPoint) => number> = {
  scale: (point) => point.nominal_mm,
  offset: (point) => (point.kind === 'internal' || point.kind === 'hole' ? -1 : 1),
  hole_offset: (point) => (point.kind === 'hole' ? 1 : 0),
};

interface TermFit {
  terms: readonly FitTerm[];
  fit: LeastSquares;
}

/**
 * Fits `e = β·nominal + δ·k + η·h` over the mean deviations of one axis: β what the scale is off,
 * δ what walls are too fat, η what round holes lose beyond that; and advises what to correct.
 *
 * @param points mean deviation of each dimension of the axis, diagonals left out
 */
export function fitAxis(points: readonly AxisPoint[], alpha: number): AxisFit {
  const hasHoles = points.some((point) => point.kind === 'hole');
  const terms: FitTerm[] = hasHoles ? ['scale', 'offset', 'hole_offset'] : ['scale', 'offset'];
  const full = fitTerms(points, terms);
  if (!full) {
    const reason =
      points.length < terms.length + 1
        ? `${points.length} of at least ${terms.length + 1} dimensions needed for a fit`
        : 'sizes and kinds of these dimensions cannot be told apart by a fit';
    return {
      n: points.length,
      scale: null,
      offset_mm: null,
      hole_offset_mm: null,
      residual_mae_mm: null,
      advice: null,
      notes: [reason],
    };
  }
  return {
    n: points.length,
    scale: mapInterval(combination(full, { scale: 1 }, alpha), (beta) => 1 + beta),
    offset_mm: combination(full, { offset: 1 }, alpha),
    hole_offset_mm: hasHoles ? combination(full, { hole_offset: 1 }, alpha) : null,
    residual_mae_mm: meanAbs(full.fit.residuals),
    advice: advise(points, full, alpha),
    notes: [],
  };
}

function fitTerms(points: readonly AxisPoint[], terms: readonly FitTerm[]): TermFit | null {
  const fit = leastSquares(
    terms.map((term) => points.map(COLUMN[term])),
    points.map((point) => point.deviation_mm),
  );
  return fit && { terms, fit };
}

/** A linear combination of the terms with its interval from t; a term not in the fit counts 0. */
function combination(
  { terms, fit }: TermFit,
  weights: Partial<Record<FitTerm, number>>,
  alpha: number,
): Interval {
  const vector = terms.map((term) => weights[term] ?? 0);
  const estimate = sum(vector.map((weight, at) => weight * (fit.coefficients[at] ?? 0)));
  const half =
    tQuantile(1 - alpha / 2, fit.df) * Math.sqrt(Math.max(0, combinationVariance(fit, vector)));
  return { estimate, low: estimate - half, high: estimate + half };
}

function advise(points: readonly AxisPoint[], full: TermFit, alpha: number): Advice {
  const deviations = points.map((point) => point.deviation_mm);
  const mae_before_mm = meanAbs(deviations);
  const kept = jointP(deviations, full) < alpha ? eliminate(points, full, alpha) : null;
  if (!kept) {
    return {
      terms: [],
      scale_to_enter: null,
      wall_compensation_mm: null,
      hole_compensation_mm: null,
      hole_extra_mm: null,
      mae_before_mm,
      mae_after_mm: mae_before_mm,
      notes: ['nothing to correct beyond the noise'],
    };
  }
  const has = (term: FitTerm) => kept.terms.includes(term);
  // On an axis without holes there is nothing to say of them.
  const hasHoles = full.terms.includes('hole_offset');
  return {
    terms: [...kept.terms],
    scale_to_enter: has('scale')
      ? mapIntervalReversed(combination(kept, { scale: 1 }, alpha), (beta) => 1 / (1 + beta))
      : null,
    wall_compensation_mm: has('offset') ? combination(kept, { offset: -0.5 }, alpha) : null,
    hole_compensation_mm:
      hasHoles && (has('offset') || has('hole_offset'))
        ? combination(kept, { hole_offset: -0.5, offset: 0.5 }, alpha)
        : null,
    hole_extra_mm: has('hole_offset') ? combination(kept, { hole_offset: -0.5 }, alpha) : null,
    mae_before_mm,
    mae_after_mm: meanAbs(kept.fit.residuals),
    notes: [],
  };
}

/** p of the joint F test of all terms against no correction at all. */
function jointP(deviations: readonly number[], { terms, fit }: TermFit): number {
  const total = sumOf(deviations, (deviation) => deviation ** 2);
  // Where nothing is off there is nothing to correct.
  if (total === 0) return 1;
  if (fit.rss === 0) return 0;
  const f = (total - fit.rss) / terms.length / (fit.rss / fit.df);
  return fUpperP(f, terms.length, fit.df);
}

/** Drops the term with the largest p ≥ alpha and refits, until all that are left are below it. */
function eliminate(points: readonly AxisPoint[], full: TermFit, alpha: number): TermFit | null {
  let current = full;
  for (;;) {
    const ps = current.terms.map((_, at) => termP(current.fit, at));
    const worst = Math.max(...ps);
    if (worst < alpha) return current;
    const dropped = ps.indexOf(worst);
    const terms = current.terms.filter((_, at) => at !== dropped);
    const next = terms.length > 0 ? fitTerms(points, terms) : null;
    if (!next) return null;
    current = next;
  }
}

function termP(fit: LeastSquares, at: number): number {
  if (fit.rss === 0) return 0;
  const weights = fit.coefficients.map((_, i) => (i === at ? 1 : 0));
  return tTwoSidedP(
    (fit.coefficients[at] ?? 0) / Math.sqrt(combinationVariance(fit, weights)),
    fit.df,
  );
}

const meanAbs = (values: readonly number[]): number => meanOf(values, Math.abs);

import { Matrix, SingularValueDecomposition } from 'ml-matrix';
import { fUpperP, meanOf, sum, sumOf, sumOfSquares } from '../stats';
import { groupBy } from '../../model/study';

/** One print's response with what it was made by. */
export interface Observation {
  machine: string;
  profile: string;
  artefact: string;
  value: number;
}

/** A term of an analysis of variance. */
export interface Term {
  df: number | null;
  /** Sum of squares of type II: over and above all terms that do not hold this one. */
  ss: number | null;
  f: number | null;
  p: number | null;
}

/** A term of the treatment, with its effect size. */
export interface Effect extends Term {
  /** Share of the variance that it explains, others left aside: df(F − 1)/(df(F − 1) + N), at least 0. */
  partial_omega2: number | null;
}

/** An analysis of variance of machines and profiles, artefacts as a block where there are several. */
export interface TypeTwo {
  n: number;
  artefact: Term | null;
  machine: Effect;
  profile: Effect;
  interaction: Effect;
  residual: { df: number; ss: number };
}

type Factor = Exclude<keyof Observation, 'value'>;
/** The columns of a term: an indicator for each level of each of its factors' combinations. */
type ModelTerm = readonly Factor[];

const MACHINE: ModelTerm = ['machine'];
const PROFILE: ModelTerm = ['profile'];
const INTERACTION: ModelTerm = ['machine', 'profile'];
const ARTEFACT: ModelTerm = ['artefact'];
/** Directions that add less than this of the longest are rounding. */
const RANK_TOLERANCE = 1e-9;

/** Observations of one combination: what the fit of any model needs of them. */
interface Group extends Observation {
  count: number;
}

/**
 * Type II analysis of variance of `value` by machine × profile with artefact as a block.
 *
 * @param observations at least one; every machine with every profile
 * @see Fox, Applied Regression Analysis, 8.2.5 (type II); Olejnik and Algina, 2003 (partial ω²)
 * @example typeTwo([
 *   ...[1, 3].map((value) => ({ machine: 'm', profile: 's', artefact: 'tile', value })),
 *   ...[3, 5].map((value) => ({ machine: 'm', profile: 't', artefact: 'tile', value })),
 *   ...[5, 7].map((value) => ({ machine: 'n', profile: 's', artefact: 'tile', value })),
 *   ...[7, 9].map((value) => ({ machine: 'n', profile: 't', artefact: 'tile', value })),
 * ]).machine // { df: 1, ss: 32, f: 16, p: 0.0161 }
 */
export function typeTwo(observations: readonly Observation[]): TypeTwo {
  const cells = groupBy(observations, (one) =>
    JSON.stringify([one.machine, one.profile, one.artefact]),
  );
  // All observations of a combination have the same row in every model: their mean, weighted, tells
  // the same as each of them, and their scatter is residual in every model.
  const groups = [...cells.entries()]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .flatMap(([, own]): Group[] => {
      const [first] = own;
      const value = meanOf(own, (one) => one.value);
      return first ? [{ ...first, value, count: own.length }] : [];
    });
  const within = sumOf([...cells.values()], (own) => sumOfSquares(own.map((one) => one.value)));
  const block = new Set(groups.map((group) => group.artefact)).size > 1 ? [ARTEFACT] : [];
  const fit = (terms: readonly ModelTerm[]) => fitMeans(groups, [...block, ...terms]);
  const full = fit([MACHINE, PROFILE, INTERACTION]);
  const main = fit([MACHINE, PROFILE]);
  const n = observations.length;
  // What is left but for rounding.
  const scale = sumOfSquares(observations.map((one) => one.value));
  const clean = (ss: number) => (Math.abs(ss) <= 1e-13 * scale ? 0 : Math.max(0, ss));
  const residual = { df: n - full.rank, ss: clean(full.rss + within) };
  const term = (smaller: Fit, larger: Fit): Term => {
    const df = larger.rank - smaller.rank;
    if (df === 0) return NO_TERM;
    const ss = clean(smaller.rss - larger.rss);
    if (residual.df === 0 || residual.ss === 0) return { df, ss, f: null, p: null };
    const f = ss / df / (residual.ss / residual.df);
    return { df, ss, f, p: fUpperP(f, df, residual.df) };
  };
  const effect = (smaller: Fit, larger: Fit): Effect => {
    const found = term(smaller, larger);
    const excess = found.f === null || found.df === null ? null : found.df * (found.f - 1);
    return {
      ...found,
      partial_omega2: excess === null ? null : Math.max(0, excess / (excess + n)),
    };
  };
  return {
    n,
    artefact:
      block.length === 0 ? null : term(fitMeans(groups, [MACHINE, PROFILE, INTERACTION]), full),
    machine: effect(fit([PROFILE]), main),
    profile: effect(fit([MACHINE]), main),
    interaction: effect(main, full),
    residual,
  };
}

const NO_TERM: Effect = { df: null, ss: null, f: null, p: null, partial_omega2: null };

interface Fit {
  rank: number;
  /** Weighted squares of the combinations' means that the model leaves. */
  rss: number;
}

/** Fits an additive model of terms to the combinations' means, weighted by their counts. */
function fitMeans(groups: readonly Group[], terms: readonly ModelTerm[]): Fit {
  const columns = terms.flatMap((term) => {
    const levelOf = (group: Group) => JSON.stringify(term.map((factor) => group[factor]));
    const levels = [...new Set(groups.map(levelOf))];
    return levels.map((level) => groups.map((group) => Number(levelOf(group) === level)));
  });
  const roots = groups.map((group) => Math.sqrt(group.count));
  const design = new Matrix(
    groups.map((_, row) => columns.map((column) => (column[row] ?? 0) * (roots[row] ?? 0))),
  );
  // Values about their middle keep small differences exact; every model holds the constant.
  const middle = meanOf(groups, (group) => group.value);
  const y = groups.map((group, row) => (group.value - middle) * (roots[row] ?? 0));
  const svd = new SingularValueDecomposition(design, { autoTranspose: true });
  const largest = Math.max(...svd.diagonal);
  const kept = svd.diagonal.flatMap((s, at) => (s > RANK_TOLERANCE * largest ? [at] : []));
  const left = svd.leftSingularVectors;
  const left_over = [...y];
  for (const at of kept) {
    const direction = left.getColumn(at);
    const share = sum(direction.map((value, row) => value * (y[row] ?? 0)));
    direction.forEach((value, row) => {
      left_over[row] = (left_over[row] ?? 0) - share * value;
    });
  }
  return { rank: kept.length, rss: sumOf(left_over, (value) => value ** 2) };
}

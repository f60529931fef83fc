import {
  combineVariance,
  printMean,
  tQuantile,
  tTwoSidedP,
  type CombinedVariance,
  type Interval,
  type PrintMean,
  type PrintValues,
} from '../stats';
import { partsOfStratum, ALLOWANCE } from '../../model/study';
import { printsNeeded, printsToFind, type PrintsNeeded, type Verdict } from './verdict';

/** The values of two sides for a comparison, by stratum. */
export interface PairValues {
  contender: string;
  contenderValues: PrintValues;
  referenceValues: PrintValues;
}

export interface PairRow {
  contender: string;
  reference: string;
  /** How many different artefacts the strata are of. */
  artefacts: number;
  /** How many strata both sides have values of. */
  strata: number;
  /** The strata that the comparison rests on: those of which both sides have values; empty where it is all of them. */
  on: readonly string[];
  /** Contender − reference, at the error probability of the family. */
  difference: Interval;
  p: number | null;
  p_adjusted: number | null;
  df: number | null;
  verdict: Verdict;
  /** Prints of each side and stratum that settle it, whichever way it lies; null where it is settled. */
  prints_needed: number | null;
  /** The same if the difference is as large as it looks; null unless it looks larger than `delta`. */
  prints_as_seen: number | null;
  notes: string[];
}

export interface FamilyOptions {
  reference: string;
  alpha: number;
  /** The smallest difference of interest, in the figure's unit; null where none is stated. */
  delta: number | null;
  /** Whether a larger figure is the better one. */
  isLargerBetter: boolean;
  /**
   * How many comparisons the family has, where these are some of a larger one: a pair compared alone is
   * tested as in its study. Those that have an interval here where not given.
   */
  comparisons?: number;
}

interface Comparison {
  contender: string;
  on: readonly string[];
  estimate: number;
  sides: readonly [PrintMean, PrintMean];
  /** What both have printed, and not in the same material. */
  apart: readonly string[];
  /** Null where a side has one print of every stratum. */
  combined: CombinedVariance | null;
}

/**
 * Compares every other contender with the reference by the two-side rule, on the strata where
 * both have values; the family's error probability is shared out after Šidák.
 *
 * @param pairs one for each other contender; those without a common stratum give no row
 * @see Welch, 1947; Šidák, 1967; Schuirmann, 1987 (two one-sided tests)
 * @example compareFamily(
 *   [
 *     {
 *       contender: 'b',
 *       contenderValues: new Map([['tile', [1, 2, 3]]]),
 *       referenceValues: new Map([['tile', [5, 6, 7]]]),
 *     },
 *   ],
 *   { reference: 'a', alpha: 0.05, delta: 0.5, isLargerBetter: false },
 * )[0]
 * // { difference: { estimate: -4, low: -6.2670, high: -1.7330 }, df: 4, verdict: 'better' }
 */
export function compareFamily(pairs: readonly PairValues[], options: FamilyOptions): PairRow[] {
  const comparisons = pairs.flatMap((pair) => compareSides(pair) ?? []);
  const made =
    options.comparisons ?? comparisons.filter((comparison) => comparison.combined).length;
  const alphaEach = alphaOfEach(options.alpha, made);
  return comparisons.map((comparison) => judge(comparison, options, alphaEach, made));
}

/**
 * The error probability of each of so many comparisons, so that together they keep alpha (Šidák).
 *
 * @see Šidák, Rectangular confidence regions, 1967
 * @example alphaOfEach(0.05, 3) // 0.0170
 */
export const alphaOfEach = (alpha: number, comparisons: number): number =>
  1 - (1 - alpha) ** (1 / Math.max(1, comparisons));

function compareSides(pair: PairValues): Comparison | null {
  const common = [...pair.contenderValues.keys()].filter((key) => pair.referenceValues.has(key));
  if (common.length === 0) return null;
  const restrict = (values: PrintValues) =>
    printMean(new Map(common.map((key) => [key, values.get(key) ?? []])));
  const sides = [restrict(pair.contenderValues), restrict(pair.referenceValues)] as const;
  return {
    contender: pair.contender,
    on: common,
    estimate: sides[0].estimate - sides[1].estimate,
    sides,
    apart: notInCommon(pair),
    combined: sides.every((side) => side.terms) ? combineVariance(sides) : null,
  };
}

/** Artefacts that both sides have printed, one of them in a material that the other has not. */
function notInCommon({ contenderValues, referenceValues }: PairValues): string[] {
  const strataOf = (values: ReadonlyMap<string, unknown>): Stratum[] =>
    [...values.keys()].map((key) => ({ key, ...partsOfStratum(key) }));
  const [own, others] = [strataOf(contenderValues), strataOf(referenceValues)];
  const oneSided = (side: readonly Stratum[], other: readonly Stratum[]) =>
    side
      .filter(({ key }) => !other.some((one) => one.key === key))
      .filter(({ artefact_id }) => other.some((one) => one.artefact_id === artefact_id))
      .map(
        ({ artefact_id, type }) => `${artefact_id} in ${type} is on one side only: not compared`,
      );
  return [...oneSided(own, others), ...oneSided(others, own)].sort();
}

type Stratum = ReturnType<typeof partsOfStratum> & { key: string };

/** What a number of prints is reckoned from: the scatter of both sides, and how many they have. */
const scatterOf = (
  sides: Comparison['sides'],
): Pick<PrintsNeeded, 'variance' | 'strata' | 'fewestPrints'> => ({
  variance: (sides[0].squares + sides[1].squares) / (sides[0].df + sides[1].df),
  strata: sides[0].strata,
  fewestPrints: Math.min(sides[0].fewestPrints, sides[1].fewestPrints),
});

/**
 * The scatter of a pair on the strata that both have; null without one or without repeats.
 *
 * @example scatterOfPair({
 *   contender: 'b',
 *   contenderValues: new Map([['tile', [1, 2, 3]]]),
 *   referenceValues: new Map([['tile', [5, 6, 7]]]),
 * }) // { variance: 1, strata: 1, fewestPrints: 3 }
 */
export function scatterOfPair(pair: PairValues): ReturnType<typeof scatterOf> | null {
  const comparison = compareSides(pair);
  return comparison?.combined ? scatterOf(comparison.sides) : null;
}

function judge(
  { contender, on, estimate, sides, apart, combined }: Comparison,
  options: FamilyOptions,
  alphaEach: number,
  made: number,
): PairRow {
  const { reference, delta } = options;
  const artefacts = new Set(on.map((stratum) => partsOfStratum(stratum).artefact_id)).size;
  const row = { contender, reference, artefacts, strata: sides[0].strata, on };
  const deltaNote = delta === null ? ['no smallest difference of interest is stated'] : [];
  if (!combined) {
    return {
      ...row,
      difference: {
        estimate,
        low: null,
        high: null,
        notes: ['a side has one print per artefact and material: no interval'],
      },
      p: null,
      p_adjusted: null,
      df: null,
      verdict: 'one_print',
      prints_needed: null,
      prints_as_seen: null,
      notes: ['one print on a side can show, not decide', ...apart],
    };
  }
  const test = testDifference(estimate, sides, combined, alphaEach);
  const isDifferent = test.low > ALLOWANCE || test.high < -ALLOWANCE;
  const isEquivalent =
    delta !== null && test.innerLow > -delta + ALLOWANCE && test.innerHigh < delta - ALLOWANCE;
  const verdict = nameVerdict(isDifferent, isEquivalent, estimate > 0 === options.isLargerBetter);
  const open = verdict === 'unsettled' ? delta : null;
  const scatter = { ...scatterOf(sides), alpha: alphaEach };
  return {
    ...row,
    difference: { estimate, low: test.low, high: test.high },
    p: test.p,
    p_adjusted: 1 - (1 - test.p) ** made,
    df: test.df,
    verdict,
    prints_needed: open === null ? null : printsNeeded({ ...scatter, delta: open }),
    prints_as_seen:
      open === null || Math.abs(estimate) <= open + ALLOWANCE
        ? null
        : printsToFind({ ...scatter, delta: Math.abs(estimate) }),
    notes: [...deltaNote, ...apart],
  };
}

function testDifference(
  estimate: number,
  sides: readonly PrintMean[],
  combined: CombinedVariance,
  alphaEach: number,
) {
  if (combined.isZero) {
    const scale = Math.max(...sides.map((side) => side.scale));
    const isNothing = Math.abs(estimate) <= 1e-12 * scale;
    return {
      low: estimate,
      high: estimate,
      innerLow: estimate,
      innerHigh: estimate,
      p: isNothing ? 1 : 0,
      df: null,
    };
  }
  const error = Math.sqrt(combined.variance);
  const outer = tQuantile(1 - alphaEach / 2, combined.df) * error;
  const inner = tQuantile(1 - alphaEach, combined.df) * error;
  return {
    low: estimate - outer,
    high: estimate + outer,
    innerLow: estimate - inner,
    innerHigh: estimate + inner,
    p: tTwoSidedP(estimate / error, combined.df),
    df: combined.df,
  };
}

function nameVerdict(isDifferent: boolean, isEquivalent: boolean, isBetter: boolean): Verdict {
  if (isDifferent && isEquivalent) return 'trivial';
  if (isDifferent) return isBetter ? 'better' : 'worse';
  return isEquivalent ? 'indistinguishable' : 'unsettled';
}

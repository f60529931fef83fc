import { ALLOWANCE } from '../../model/study';
import {
  compareFamily,
  printsToShow,
  scatterOfPair,
  type PairValues,
} from '../../statistics/compare';
import type { Interval } from '../../statistics/stats';
import { allGoodNeeded, shareDifference, type Tally } from './share-difference';

/** A figure of a sweep's steps, and how it is compared with the first. */
export interface SweepFigure {
  key: string;
  /** Whether more is better. */
  isLargerBetter: boolean;
  /** The smallest difference that matters; null where none is stated: described, not tested. */
  delta: number | null;
  /** The figure of a step as its own section has it; null where it has no value. */
  estimateOf: (contender: string) => Interval | null;
  /** How a step is compared with the reference: values of prints, or shares of successes. */
  comparison:
    | { kind: 'values'; of: (contender: string, reference: string) => PairValues }
    | { kind: 'shares'; of: (contender: string) => Tally };
}

/** A step of a figure. */
export interface SweepStep {
  contender: string;
  /** The setting's value. */
  value: number;
  /** The figure at 1 − alpha; null without a value. */
  estimate: Interval | null;
  /** Step less reference at 1 − 2·alpha; null at the reference, and without a value on a side. */
  difference: Interval | null;
  /** Whether it is shown not to be worse; null at the reference, after the first not shown, untested. */
  shown: boolean | null;
  notes: string[];
}

/** How far a figure holds. */
export interface SweepOfFigure {
  delta: number | null;
  steps: SweepStep[];
  /** The last step shown not to be worse than the first; null where the second is not. */
  holds_to: string | null;
}

/** What stops a sweep at the step after the last that holds. */
export interface SweepLimit {
  figure: string;
  /** It is worse there, or cannot be shown not to be. */
  why: 'lost' | 'not_shown';
  /** Prints a step and artefact (of success: a step) with which it would be shown; null where lost. */
  prints_needed: number | null;
  notes: string[];
}

/** How far a setting can be taken before something is lost. */
export interface Sweep {
  setting: string;
  unit: string | null;
  reference: string;
  figures: Record<string, SweepOfFigure>;
  holds_to: string | null;
  limited_by: SweepLimit[];
  /** Printing time at the last step that holds, against the first; null without one. */
  gain: Interval | null;
  notes: string[];
}

/** The steps of a setting, from the safe end. */
export interface SweptSetting {
  setting: string;
  unit: string | null;
  steps: readonly { contender_id: string; value: number }[];
}

/**
 * How far a setting can be taken: each figure, in the order of the steps, must be shown not to be
 * worse than at the first by what matters (a fixed sequence, at alpha each), until one is not.
 *
 * @param timeIndexOf a step's time against the first
 */
export function sweepOf(
  { setting, unit, steps }: SweptSetting,
  figures: readonly SweepFigure[],
  timeIndexOf: (contender: string) => Interval | null,
  alpha: number,
): Sweep {
  const ids = steps.map((step) => step.contender_id);
  const [reference = ''] = ids;
  const known = figures.filter((figure) => ids.some((id) => figure.estimateOf(id) !== null));
  const found = known.map((figure) => [figure, alongSteps(figure, steps, alpha)] as const);
  const tested = found.filter(([figure]) => figure.delta !== null);
  const reach = (own: SweepOfFigure) => (own.holds_to === null ? 0 : ids.indexOf(own.holds_to));
  const least = Math.min(...tested.map(([, own]) => reach(own)));
  const holds_to = tested.length > 0 && least > 0 ? (ids[least] ?? null) : null;
  const next = tested.length > 0 ? ids[least + 1] : undefined;
  const gain = holds_to === null ? null : timeIndexOf(holds_to);
  return {
    setting,
    unit,
    reference,
    figures: Object.fromEntries(found.map(([{ key }, own]) => [key, own])),
    holds_to,
    limited_by:
      next === undefined
        ? []
        : tested.flatMap(([figure, own]) => {
            const step = own.steps[least + 1];
            return step?.shown === false ? [limitOf(figure, step, reference, alpha)] : [];
          }),
    gain,
    notes: [
      ...figures
        .filter((figure) => !known.includes(figure))
        .map(({ key }) => `${key}: no step has evidence for it`),
      ...(tested.length === 0 ? ['no figure has a smallest difference: nothing is tested'] : []),
      ...(holds_to !== null && gain === null ? ['gain: not known of the step that holds'] : []),
    ],
  };
}

function alongSteps(
  figure: SweepFigure,
  steps: SweptSetting['steps'],
  alpha: number,
): SweepOfFigure {
  const { delta } = figure;
  const [first] = steps;
  const reference = first?.contender_id ?? '';
  let isGoingOn = delta !== null;
  let holds_to: string | null = null;
  const found = steps.map(({ contender_id: contender, value }, at): SweepStep => {
    const estimate = figure.estimateOf(contender);
    if (at === 0) {
      return {
        contender,
        value,
        estimate,
        difference: null,
        shown: null,
        notes: ['the reference'],
      };
    }
    const difference = differenceOf(figure, contender, reference, alpha);
    const notes =
      difference === null
        ? ['no value on a side, or no artefact in common']
        : (difference.notes ?? []);
    if (!isGoingOn || delta === null) {
      return { contender, value, estimate, difference, shown: null, notes };
    }
    const shown = isNotWorse(figure, difference, delta);
    if (shown) holds_to = contender;
    else isGoingOn = false;
    return { contender, value, estimate, difference, shown, notes };
  });
  return { delta, steps: found, holds_to };
}

/** Step less reference at 1 − 2·alpha: its end on the bad side is one-sided at alpha. */
function differenceOf(
  { comparison, estimateOf, isLargerBetter }: SweepFigure,
  contender: string,
  reference: string,
  alpha: number,
): Interval | null {
  if (estimateOf(contender) === null || estimateOf(reference) === null) return null;
  if (comparison.kind === 'shares') {
    const found = shareDifference(comparison.of(contender), comparison.of(reference), 2 * alpha);
    return found.estimate === null ? null : found;
  }
  const [row] = compareFamily([comparison.of(contender, reference)], {
    reference,
    alpha: 2 * alpha,
    delta: null,
    isLargerBetter,
  });
  return row?.difference ?? null;
}

/** Whether the bad end of a difference lies within what matters. */
function isNotWorse(
  { isLargerBetter }: SweepFigure,
  difference: Interval | null,
  delta: number,
): boolean {
  if (difference?.low == null || difference.high === null) return false;
  return isLargerBetter ? difference.low > -delta + ALLOWANCE : difference.high < delta - ALLOWANCE;
}

function limitOf(
  figure: SweepFigure,
  { contender, difference }: SweepStep,
  reference: string,
  alpha: number,
): SweepLimit {
  const { key, delta, isLargerBetter, comparison } = figure;
  const isLost =
    difference?.low != null &&
    difference.high !== null &&
    (isLargerBetter ? difference.high < -ALLOWANCE : difference.low > ALLOWANCE);
  if (isLost) return { figure: key, why: 'lost', prints_needed: null, notes: [] };
  const not = (prints_needed: number | null): SweepLimit => ({
    figure: key,
    why: 'not_shown',
    prints_needed,
    notes: prints_needed === null ? ['without an interval no number of prints can be said'] : [],
  });
  if (delta === null || difference?.low == null) return not(null);
  if (comparison.kind === 'shares') {
    const needed = allGoodNeeded(delta, alpha);
    const now = Math.min(comparison.of(contender).prints, comparison.of(reference).prints);
    return not(needed === null ? null : Math.max(needed, now + 1));
  }
  const scatter = scatterOfPair(comparison.of(contender, reference));
  return not(scatter && printsToShow({ ...scatter, delta, alpha }));
}

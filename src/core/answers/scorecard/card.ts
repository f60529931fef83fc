import { ALLOWANCE, type StudyMeta } from '../../model/study';
import type { Interval } from '../../statistics/stats';
import type { Curve } from './curve';

/** What is known of a contender by a criterion. */
export interface Evidence extends Pick<Interval, 'low' | 'high'> {
  /** The estimate; null where no number says it, see `bound`. */
  value: number | null;
  /** Normal quantile of the level that its interval was made at; 0 where it has none. */
  z: number;
  /** Above or below every number, or failed at the easiest already; null for a plain value. */
  bound: 'above' | 'below' | 'fails' | null;
}

/** A criterion of a card: its weight in any unit, and what its values are worth. */
export interface Criterion {
  key: string;
  weight: number;
  points: Curve;
}

/** What a contender must pass to be in at all. */
export interface Gate {
  key: string;
  op: '>=' | '<=';
  value: number;
}

/** A scorecard for one use. */
export interface Card {
  /** What it is for. */
  name?: string | undefined;
  criteria: readonly Criterion[];
  gates: readonly Gate[];
  /** How often values and weights are drawn. */
  draws: number;
  /** How firm the weights are: the sum of the parameters of their Dirichlet distribution. */
  concentration: number;
}

/** How often a card is drawn, and how firm its weights are, where the study does not state it. */
const DRAWS = 20_000;
const CONCENTRATION = 50;

/** A study's card with its defaults filled in. */
export const cardOf = (card: NonNullable<StudyMeta['scorecard']>): Card => ({
  name: card.name,
  criteria: card.criteria,
  gates: card.gates ?? [],
  draws: card.draws ?? DRAWS,
  concentration: card.concentration ?? CONCENTRATION,
});

/** Evidence of one criterion, by contender; a contender without any is not there. */
export type ByContender = Readonly<Record<string, Evidence>>;

/** All evidence that a card can weigh, by criterion. */
export type EvidenceOfCriteria = Readonly<Record<string, ByContender>>;

/** Scores closer than this are the same. */
export const SAME = ALLOWANCE;

/** Weights that sum to 1. */
export function shares(criteria: readonly Criterion[]): number[] {
  const total = criteria.reduce((sum, one) => sum + one.weight, 0);
  return criteria.map((one) => one.weight / total);
}

import { ALLOWANCE, isAtLeast, isAtMost } from '../../model/study';
import { utilityAt, type Curve } from './curve';
import { shares, type Card, type Evidence, type EvidenceOfCriteria, type Gate } from './card';

/** What a value counts as where it is drawn and gated: ±∞ where it has no bound. */
const numberOf = ({ value, bound }: Evidence): number =>
  bound === 'above' ? Infinity : bound === 'below' ? -Infinity : (value ?? NaN);

/** What evidence is worth; to fail the easiest is worth nothing. */
const utilityOf = (curve: Curve, evidence: Evidence): number =>
  evidence.bound === 'fails' ? 0 : utilityAt(curve, numberOf(evidence));

/** Whether evidence passes a gate, null where there is none; limits allow 1e-9. */
export function passes(gate: Gate, evidence: Evidence | undefined): boolean | null {
  if (!evidence) return null;
  if (evidence.bound === 'fails') return false;
  const value = numberOf(evidence);
  return gate.op === '>=' ? isAtLeast(value, gate.value) : isAtMost(value, gate.value);
}

/** Utilities of a contender by criterion, null where there is no evidence. */
export const utilitiesOf = (
  card: Pick<Card, 'criteria'>,
  evidence: EvidenceOfCriteria,
  contender: string,
): (number | null)[] =>
  card.criteria.map(({ key, points }) => {
    const own = evidence[key]?.[contender];
    return own ? utilityOf(points, own) : null;
  });

/** The score 0…100, what is not known counted as worth so much. */
export function scoreAt(
  weights: readonly number[],
  utilities: readonly (number | null)[],
  unknown: number,
): number {
  return weights.reduce((sum, weight, at) => sum + 100 * weight * (utilities[at] ?? unknown), 0);
}

/** Who scores most at the estimates, what is not known worth a half; of equals the first id. */
export function winnerOf(
  card: Card,
  evidence: EvidenceOfCriteria,
  contenders: readonly string[],
): string | null {
  const weights = shares(card.criteria);
  let winner: string | null = null;
  let best = -Infinity;
  for (const id of [...contenders].sort()) {
    const score = scoreAt(weights, utilitiesOf(card, evidence, id), 0.5);
    if (score > best + ALLOWANCE) [winner, best] = [id, score];
  }
  return winner;
}

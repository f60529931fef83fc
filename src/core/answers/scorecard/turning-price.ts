import { largestWorth } from './curve';
import { SAME, shares, type Card, type EvidenceOfCriteria } from './card';
import { scoreAt, utilitiesOf } from './score';

/** The price at which the answer turns. */
export interface TurningPrice {
  /** In the study's currency; null where there is none, or it cannot be told. */
  turning_price: number | null;
  /** Why it is null. */
  why: string | null;
}

/** The criterion that a price is weighed by. */
export const PRICE = 'price';

/**
 * The largest price at or above 0 at which a contender's score is not below the best other's, while
 * nothing but what its price is worth moves.
 *
 * @param inside the contenders that pass the gates
 */
export function turningPriceOf(
  card: Card,
  evidence: EvidenceOfCriteria,
  contender: string,
  inside: readonly string[],
): TurningPrice {
  const none = (why: string): TurningPrice => ({ turning_price: null, why });
  const place = card.criteria.findIndex(({ key }) => key === PRICE);
  const criterion = card.criteria[place];
  if (!criterion) return none('the price is no criterion of this card');
  if (!inside.includes(contender)) return none('it is out');
  const others = inside.filter((id) => id !== contender);
  if (others.length === 0) return none('no other is in');
  const utilities = utilitiesOf(card, evidence, contender);
  if (utilities.some((utility, at) => utility === null && at !== place)) {
    return none('some of its evidence is not known');
  }
  const weights = shares(card.criteria);
  const best = Math.max(
    ...others.map((id) => scoreAt(weights, utilitiesOf(card, evidence, id), 0.5)),
  );
  const rest = scoreAt(
    weights.map((weight, at) => (at === place ? 0 : weight)),
    utilities,
    0,
  );
  const weight = 100 * (weights[place] ?? 0);
  const lacking = best - rest - SAME;
  if (weight === 0) return none(lacking <= 0 ? ANY_PRICE : NO_PRICE);
  const price = largestWorth(criterion.points, lacking / weight);
  if (price === null) return none(NO_PRICE);
  return price === Infinity ? none(ANY_PRICE) : { turning_price: price, why: null };
}

const ANY_PRICE = 'at any price';
const NO_PRICE = 'not even as a gift';

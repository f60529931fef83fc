import { PRICE, whyNoTurningPrice, type Scorecard } from '../../answers/scorecard';
import { groupBy, ALLOWANCE } from '../../model/study';
import { listed } from './lists';

/** Writes a share of simulations: never 0 or 100 % where another draw could differ. */
export function formatShare(share: number): string {
  if (share === 0) return '0 %';
  if (share === 1) return '100 %';
  if (share < 0.01) return 'under 1 %';
  if (share > 0.99) return 'over 99 %';
  return `${(100 * share).toFixed(0)} %`;
}

/** A contender with at least this share of simulations is named first. */
const CLEAR = 0.9;
/** A smaller share is not worth a sentence. */
const DOUBTED = 0.02;

/**
 * What a card answers, in sentences: who comes first and how surely, who is out, what it hangs on, the
 * price at which it turns.
 *
 * @param use what the card is for
 * @param labelOf what a criterion is called
 */
export function describeScorecard(
  card: Scorecard,
  use: string,
  nameOf: (contender: string) => string,
  labelOf: (key: string) => string,
  currency: string,
): string[] {
  const entries = Object.entries(card.contenders);
  const out = entries.filter(([, own]) => !own.in);
  const reasons = groupBy(out, ([, own]) =>
    listed(own.gates.filter((gate) => gate.passed === false).map((gate) => labelOf(gate.key))),
  );
  const outSaid = [...reasons].map(([reason, own]) => {
    const names = listed(own.map(([id]) => nameOf(id)));
    return `${names} ${own.length === 1 ? 'is' : 'are'} excluded: ${reason}.`;
  });
  if (card.winner === null) return [`No contender meets the conditions for ${use}.`, ...outSaid];
  const inside = entries.filter(([, own]) => own.in);
  const winner = card.contenders[card.winner];
  const share = winner?.first_place_share ?? 0;
  const name = nameOf(card.winner);
  const rivals = inside
    .filter(([id, own]) => id !== card.winner && (own.first_place_share ?? 0) > DOUBTED)
    .sort(([, a], [, b]) => (b.first_place_share ?? 0) - (a.first_place_share ?? 0));
  const rivalsSaid = listed(
    rivals.map(([id, own]) => `${nameOf(id)} in ${formatShare(own.first_place_share ?? 0)}`),
  );
  const said: string[] = [];
  if (inside.length === 1) said.push(`Only ${name} meets the conditions for ${use}.`);
  else if (share >= CLEAR) {
    said.push(`Best for ${use}: ${name}. It comes first in ${formatShare(share)} of simulations.`);
  } else {
    said.push(
      `Best for ${use} so far: ${name}.`,
      `It comes first in ${formatShare(share)} of simulations${rivalsSaid === '' ? '' : `; ${rivalsSaid}`}.`,
    );
  }
  const missing = inside.filter(([, own]) => own.score.high - own.score.low > ALLOWANCE);
  if (missing.length > 0) {
    said.push(
      `Some evidence is missing for ${listed(missing.map(([id]) => nameOf(id)))}, so its score is a range.`,
    );
  }
  said.push(...outSaid);
  const doubts = Object.entries(card.doubt ?? {})
    .filter(([, part]) => part > DOUBTED)
    .sort(([, a], [, b]) => b - a);
  const [first] = doubts;
  if (first) {
    const [key, part] = first;
    said.push(
      key === 'weights'
        ? 'The result depends most on the weights, which are an opinion: with slightly different ' +
            `weights another contender would come first in ${formatShare(part)} of simulations.`
        : `The result depends most on ${labelOf(key)}: within its uncertainty another contender would ` +
            `come first in ${formatShare(part)} of simulations.`,
    );
  } else if (inside.length > 1)
    said.push('No single figure could change the result within its uncertainty.');
  const price = winner?.turning_price ?? null;
  if (price !== null) {
    said.push(`${name} stays first up to a price of ${price.toFixed(0)} ${currency}.`.trim());
  } else if (card.criteria.some(({ key }) => key === PRICE) && winner) {
    const isAtAny = whyNoTurningPrice(winner).startsWith('at any price');
    if (isAtAny) said.push(`${name} stays first at any price.`);
  }
  return said;
}

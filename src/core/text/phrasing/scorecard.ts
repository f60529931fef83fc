import { PRICE, whyNoTurningPrice, type Scorecard } from '../../answers/scorecard';
import { groupBy } from '../../model/study';
import { listed } from './lists';

/** How a share of draws is told: never 0 or 100 % where a draw could be otherwise. */
export function saidShare(share: number): string {
  if (share === 0) return 'never';
  if (share === 1) return 'always';
  if (share < 0.01) return 'under 1 %';
  if (share > 0.99) return 'over 99 %';
  return `${(100 * share).toFixed(0)} %`;
}

/** From this share of draws on a contender is said to come first. */
const CLEAR = 0.9;
/** Below this share nothing is said to hang on it. */
const DOUBTED = 0.02;

/**
 * What a card answers, in sentences: who comes first and how surely, who is out, what it hangs on, the
 * price at which it turns.
 *
 * @param use what the card is for
 * @param labelOf what a criterion is called
 */
export function saidScorecard(
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
    return `${names} ${own.length === 1 ? 'is' : 'are'} out: ${reason}.`;
  });
  if (card.winner === null) return [`For ${use}, nobody passes the conditions.`, ...outSaid];
  const inside = entries.filter(([, own]) => own.in);
  const winner = card.contenders[card.winner];
  const share = winner?.first_place_share ?? 0;
  const name = nameOf(card.winner);
  const rivals = inside
    .filter(([id, own]) => id !== card.winner && (own.first_place_share ?? 0) > DOUBTED)
    .sort(([, a], [, b]) => (b.first_place_share ?? 0) - (a.first_place_share ?? 0));
  const rivalsSaid = listed(
    rivals.map(([id, own]) => `${nameOf(id)} (${saidShare(own.first_place_share ?? 0)})`),
  );
  const said: string[] = [];
  if (inside.length === 1) said.push(`For ${use}, only ${name} passes the conditions.`);
  else if (share >= CLEAR) {
    said.push(`For ${use}, ${name}: it comes first in ${saidShare(share)} of the draws.`);
  } else {
    said.push(
      `For ${use}, ${name} by what is known now, in ${saidShare(share)} of the draws; ` +
        `${rivalsSaid || 'nobody else'} could come first as well.`,
    );
  }
  const missing = inside.filter(([, own]) => own.score.high - own.score.low > 1e-9);
  if (missing.length > 0) {
    said.push(
      `Evidence is missing of ${listed(missing.map(([id]) => nameOf(id)))}: a range, not a guess.`,
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
        ? 'It hangs most on the weights, an opinion: moved a little, another comes first in ' +
            `${saidShare(part)} of the draws.`
        : `It hangs most on ${labelOf(key)}: within what is known of it another comes first in ` +
            `${saidShare(part)} of the draws.`,
    );
  } else if (inside.length > 1) said.push('Nothing that is known would turn it by itself.');
  const price = winner?.turning_price ?? null;
  if (price !== null) {
    said.push(`${name} stays first up to a price of ${price.toFixed(0)} ${currency}.`.trim());
  } else if (card.criteria.some(({ key }) => key === PRICE) && winner) {
    const isAtAny = whyNoTurningPrice(winner).startsWith('at any price');
    if (isAtAny) said.push(`${name} stays first at any price.`);
  }
  return said;
}

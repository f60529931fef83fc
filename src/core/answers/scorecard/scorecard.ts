import { shares, type Card, type EvidenceOfCriteria, type Gate } from './card';
import { passes, scoreAt, utilitiesOf, winnerOf } from './score';
import { sensitivityOf } from './sensitivity';
import { turningPriceOf } from './turning-price';

/** What a value is, and what it is worth to this card. */
export interface WeighedValue {
  value: number | null;
  low: number | null;
  high: number | null;
  /** 0…1; null where there is no evidence. */
  utility: number | null;
  /** No number says it: above or below all, or failed at the easiest already. */
  bound: 'above' | 'below' | 'fails' | null;
}

/** How a contender does on a card. */
export interface ContenderScore {
  /** 0…100; a range where evidence is missing. */
  score: { low: number; high: number };
  /** Whether it passes every gate that can be judged. */
  in: boolean;
  gates: (Gate & { passed: boolean | null })[];
  /** Share of draws in which it comes first; null where it is out. */
  first_place_share: number | null;
  /** The same for every place, first … last. */
  rank_shares: number[] | null;
  /** The price up to which it is not beaten; null where there is none, or it cannot be told. */
  turning_price: number | null;
  values: Record<string, WeighedValue>;
  /** Why something here is null. */
  notes: string[];
}

/** A card filled in: scores, how firm they are, and what the answer hangs on. */
export interface Scorecard {
  /** What the card is for; null where it has no name. */
  name: string | null;
  /** With weights that sum to 1. */
  criteria: { key: string; weight: number }[];
  contenders: Record<string, ContenderScore>;
  /** Share of draws in which the first scores more than the second; ties count half. */
  pairwise_win_share: Record<string, Record<string, number>>;
  /** By criterion and for `weights`: how often the answer turns while only that moves. */
  doubt: Record<string, number> | null;
  /** Who scores most at the estimates; null where nobody is in. */
  winner: string | null;
  draws: number;
  seed: number;
  notes: string[];
}

/** How a note begins that says why there is no turning price. */
const TURNING = 'turning price: ';

/** Why a contender has no turning price; empty where it has one. */
export const whyNoTurningPrice = ({ notes }: Pick<ContenderScore, 'notes'>): string =>
  notes.find((note) => note.startsWith(TURNING))?.slice(TURNING.length) ?? '';

/**
 * Fills in a card.
 *
 * @param contenders ids, in the order of the study
 */
export function fillScorecard(
  card: Card,
  evidence: EvidenceOfCriteria,
  contenders: readonly string[],
  seed: number,
): Scorecard {
  const weights = shares(card.criteria);
  const gatesOf = (id: string) =>
    card.gates.map((gate) => ({ ...gate, passed: passes(gate, evidence[gate.key]?.[id]) }));
  const gates = new Map(contenders.map((id) => [id, gatesOf(id)]));
  const isIn = (id: string) => gates.get(id)?.every((gate) => gate.passed !== false) ?? false;
  const inside = contenders.filter(isIn);
  const drawn = inside.length > 0 ? sensitivityOf(card, evidence, inside, seed) : null;
  return {
    name: card.name ?? null,
    criteria: card.criteria.map(({ key }, at) => ({ key, weight: weights[at] ?? 0 })),
    contenders: Object.fromEntries(
      contenders.map((id): [string, ContenderScore] => {
        const utilities = utilitiesOf(card, evidence, id);
        const { turning_price, why } = turningPriceOf(card, evidence, id, inside);
        const ranks = drawn?.rankShares.get(id) ?? null;
        const unknown = card.criteria.filter((_, at) => utilities[at] === null);
        return [
          id,
          {
            score: {
              low: scoreAt(weights, utilities, 0),
              high: scoreAt(weights, utilities, 1),
            },
            in: isIn(id),
            gates: (gates.get(id) ?? []).map(({ key, op, value, passed }) => ({
              key,
              op,
              value,
              passed,
            })),
            first_place_share: ranks?.[0] ?? null,
            rank_shares: ranks,
            turning_price,
            values: Object.fromEntries(
              card.criteria.map(({ key }, at) => {
                const own = evidence[key]?.[id];
                return [
                  key,
                  {
                    value: own?.value ?? null,
                    low: own?.low ?? null,
                    high: own?.high ?? null,
                    utility: utilities[at] ?? null,
                    bound: own?.bound ?? null,
                  },
                ];
              }),
            ),
            notes: [
              ...(isIn(id) ? [] : ['out: it fails a gate']),
              ...(why === null ? [] : [TURNING + why]),
              ...unknown.map(({ key }) => `${key}: not known`),
            ],
          },
        ];
      }),
    ),
    pairwise_win_share: Object.fromEntries(
      [...(drawn?.winShares ?? [])].map(([id, own]) => [id, Object.fromEntries(own)]),
    ),
    doubt: drawn?.doubt ?? null,
    winner: winnerOf(card, evidence, inside),
    draws: card.draws,
    seed,
    notes: inside.length === 0 ? ['no contender passes the gates'] : [],
  };
}

import { bitDraws, gammaDraws, zQuantile } from '../../statistics/stats';
import {
  SAME,
  shares,
  type Card,
  type Criterion,
  type Evidence,
  type EvidenceOfCriteria,
} from './card';
import { utilityAt } from './curve';
import { utilitiesOf, winnerOf } from './score';

/** How firm an answer is, from draws of values within their intervals and of weights. */
export interface Sensitivity {
  /** By contender: the share of simulations in which it comes first, second, … last. */
  rankShares: Map<string, number[]>;
  /** By two contenders: the share of simulations in which the one scores more, ties half. */
  winShares: Map<string, Map<string, number>>;
  /**
   * By criterion, and for `weights`: the share of simulations in which another scores more than the winner
   * at the estimates while only that one moves.
   */
  doubt: Record<string, number>;
}

/** Each kind of draw has a stream of its own, so that none hangs on how many the others are. */
const seedOf = (seed: number, stream: number): number => seed * 7919 + stream * 104_729;

/** So many values stand for a distribution: each the middle of a stratum of equal probability. */
const STRATA_BITS = 10;
const STRATA = 2 ** STRATA_BITS;

const middles = Array.from({ length: STRATA }, (_, at) => (at + 0.5) / STRATA);

/**
 * What evidence is worth, stratum by stratum: a half normal to each side, which keeps a skew interval's
 * ends; anything as likely where nothing is known. Null where it does not move.
 */
function worthTable(
  { points }: Criterion,
  evidence: Evidence | undefined,
  gauss: Float64Array,
): Float64Array | null {
  if (!evidence) return Float64Array.from(middles);
  const { low, high, z, value } = evidence;
  if (value === null || z === 0) return null;
  const below = low === null ? 0 : (value - low) / z;
  const above = high === null ? 0 : (high - value) / z;
  if (below === 0 && above === 0) return null;
  return gauss.map((step) => utilityAt(points, value + step * (step > 0 ? above : below)));
}

/**
 * Draws the scores of the contenders that are in.
 *
 * @param contenders at least one; their order does not matter
 */
export function sensitivityOf(
  card: Card,
  evidence: EvidenceOfCriteria,
  contenders: readonly string[],
  seed: number,
): Sensitivity {
  const ids = [...contenders].sort();
  const { criteria, draws } = card;
  const [count, terms] = [ids.length, criteria.length];
  const gauss = Float64Array.from(middles, zQuantile);
  const stratum = bitDraws(STRATA_BITS, seedOf(seed, 1));
  const weights = Float64Array.from(shares(criteria));
  const weightDraws = [...weights].map((weight, at) =>
    weight === 0 ? () => 0 : gammaDraws(weight * card.concentration, seedOf(seed, 2 + at)),
  );
  // What moves, and what it is worth; all else stays as it is.
  const moving = ids.flatMap((id, contender) =>
    criteria.flatMap((criterion, at) => {
      const worth = worthTable(criterion, evidence[criterion.key]?.[id], gauss);
      return worth ? [{ place: contender * terms + at, worth }] : [];
    }),
  );
  const settled = Float64Array.from(
    ids.flatMap((id) => utilitiesOf(card, evidence, id).map((utility) => utility ?? 0.5)),
  );
  const base = new Float64Array(count);
  scoreAll(settled, weights, base);
  const winner = ids.indexOf(winnerOf(card, evidence, ids) ?? '');
  const ranks = new Float64Array(count * count);
  const wins = new Float64Array(count * count);
  const turned = new Float64Array(terms + 1);
  const drawn = Float64Array.from(settled);
  const drawnWeights = new Float64Array(terms);
  const scores = new Float64Array(count);
  const order = new Int32Array(count);
  for (let draw = 0; draw < draws; draw += 1) {
    for (const { place, worth } of moving) drawn[place] = worth[stratum()]!;
    let total = 0;
    for (let at = 0; at < terms; at += 1) {
      const weight = weightDraws[at]!();
      drawnWeights[at] = weight;
      total += weight;
    }
    for (let at = 0; at < terms; at += 1) {
      // Very loose weights can all be drawn as nothing; then they stay as they are.
      const share = drawnWeights[at]! / total;
      drawnWeights[at] = total > 0 ? share : weights[at]!;
    }
    scoreAll(drawn, drawnWeights, scores);
    rank(scores, order);
    countPlaces(scores, order, ranks, wins);
    // What the result depends on: one thing moves, all others stay at their estimates.
    for (let at = 0; at < terms; at += 1) {
      if (isTurned(base, drawn, settled, 100 * weights[at]!, at, terms, winner)) {
        turned[at] = turned[at]! + 1;
      }
    }
    scoreAll(settled, drawnWeights, scores);
    const own = scores[winner]! + SAME;
    for (let other = 0; other < count; other += 1) {
      if (scores[other]! > own && other !== winner) {
        turned[terms] = turned[terms]! + 1;
        break;
      }
    }
  }
  const row = (from: Float64Array, at: number) =>
    [...from.subarray(at * count, (at + 1) * count)].map((sum) => sum / draws);
  return {
    rankShares: new Map(ids.map((id, at) => [id, row(ranks, at)])),
    winShares: new Map(
      ids.map((id, at) => {
        const own = row(wins, at).map((share, other) => [ids[other] ?? '', share] as const);
        return [id, new Map(own.filter(([other]) => other !== id))];
      }),
    ),
    doubt: Object.fromEntries([
      ...criteria.map(({ key }, at) => [key, (turned[at] ?? 0) / draws] as const),
      ['weights', (turned[terms] ?? 0) / draws] as const,
    ]),
  };
}

// The loops below run some millions of times: every place that they read is there, and they say so.

/** Scores of all contenders, 0…100: utilities contender by contender, term by term. */
function scoreAll(utilities: Float64Array, weights: Float64Array, scores: Float64Array): void {
  const terms = weights.length;
  let place = 0;
  for (let contender = 0; contender < scores.length; contender += 1) {
    let sum = 0;
    for (let at = 0; at < terms; at += 1, place += 1) {
      sum += weights[at]! * utilities[place]!;
    }
    scores[contender] = 100 * sum;
  }
}

/** Whether another scores more than the winner while only one term moves from its estimates. */
function isTurned(
  base: Float64Array,
  drawn: Float64Array,
  settled: Float64Array,
  weight: number,
  term: number,
  terms: number,
  winner: number,
): boolean {
  const from = winner * terms + term;
  const own = base[winner]! + weight * (drawn[from]! - settled[from]!) + SAME;
  for (let other = 0, place = term; other < base.length; other += 1, place += terms) {
    const moved = base[other]! + weight * (drawn[place]! - settled[place]!);
    if (moved > own && other !== winner) return true;
  }
  return false;
}

/** Puts the contenders in the order of their scores, the largest first; there are few. */
function rank(scores: Float64Array, order: Int32Array): void {
  for (let at = 0; at < order.length; at += 1) {
    let place = at;
    while (place > 0 && (scores[order[place - 1] ?? 0] ?? 0) < (scores[at] ?? 0)) {
      order[place] = order[place - 1] ?? 0;
      place -= 1;
    }
    order[place] = at;
  }
}

/** Counts a draw's places and wins; scores that are the same share theirs. */
function countPlaces(
  scores: Float64Array,
  order: Int32Array,
  ranks: Float64Array,
  wins: Float64Array,
): void {
  const count = order.length;
  const add = (to: Float64Array, row: number, column: number, share: number) => {
    to[row * count + column] = (to[row * count + column] ?? 0) + share;
  };
  for (let from = 0; from < count;) {
    let to = from + 1;
    const first = scores[order[from] ?? 0] ?? 0;
    while (to < count && first - (scores[order[to] ?? 0] ?? 0) <= SAME) to += 1;
    for (let a = from; a < to; a += 1) {
      const id = order[a] ?? 0;
      for (let place = from; place < to; place += 1) add(ranks, id, place, 1 / (to - from));
      for (let b = from; b < to; b += 1) if (a !== b) add(wins, id, order[b] ?? 0, 0.5);
      for (let b = to; b < count; b += 1) add(wins, id, order[b] ?? 0, 1);
    }
    from = to;
  }
}

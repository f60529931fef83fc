import { gammaDraws, normalDraws, seededDraws } from '../stats';
import {
  SAME,
  shares,
  type Card,
  type Criterion,
  type Evidence,
  type EvidenceOfCriteria,
} from './card';
import { numberOf, utilitiesOf, utilityOf, winnerOf } from './score';

/** How firm an answer is, from draws of values within their intervals and of weights. */
export interface Sensitivity {
  /** By contender: the share of draws in which it comes first, second, … last. */
  rankShares: Map<string, number[]>;
  /** By two contenders: the share of draws in which the one scores more, ties half. */
  winShares: Map<string, Map<string, number>>;
  /**
   * By criterion, and for `weights`: the share of draws in which another scores more than the winner
   * at the estimates while only that one moves.
   */
  doubt: Record<string, number>;
}

/** Each kind of draw has a stream of its own, so that none hangs on how many the others are. */
const seedOf = (seed: number, stream: number): number => seed * 7919 + stream * 104_729;

/** A drawn utility: of a value within its interval, or of one that is not known at all. */
type Draw = () => number;

/** Draws what evidence is worth; a half normal to each side keeps a skew interval's ends. */
function utilityDraw(
  { points }: Criterion,
  evidence: Evidence | undefined,
  gauss: Draw,
  uniform: Draw,
): Draw {
  if (!evidence) return uniform;
  const fixed = utilityOf(points, evidence);
  const { low, high, z, value } = evidence;
  if (value === null || z === 0) return () => fixed;
  const below = low === null ? 0 : (value - low) / z;
  const above = high === null ? 0 : (high - value) / z;
  if (below === 0 && above === 0) return () => fixed;
  const estimate = numberOf(evidence);
  // The curve on flat arrays: it is looked up for every draw.
  const xs = Float64Array.from(points, ([x]) => x);
  const us = Float64Array.from(points, ([, u]) => u);
  const last = xs.length - 1;
  return () => {
    const step = gauss();
    const x = estimate + step * (step > 0 ? above : below);
    if (x <= (xs[0] ?? 0)) return us[0] ?? 0;
    if (x >= (xs[last] ?? 0)) return us[last] ?? 0;
    let at = 1;
    while ((xs[at] ?? Infinity) < x) at += 1;
    const [x0, u0] = [xs[at - 1] ?? 0, us[at - 1] ?? 0];
    return u0 + (((us[at] ?? 0) - u0) * (x - x0)) / ((xs[at] ?? 0) - x0);
  };
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
  const gauss = normalDraws(seedOf(seed, 1));
  const flat = seededDraws(seedOf(seed, 2));
  const uniform = () => flat.uniform();
  const weights = Float64Array.from(shares(criteria));
  const weightDraws = [...weights].map((weight, at): Draw =>
    weight === 0 ? () => 0 : gammaDraws(weight * card.concentration, seedOf(seed, 3 + at)),
  );
  const valueDraws = ids.flatMap((id) =>
    criteria.map((criterion) =>
      utilityDraw(criterion, evidence[criterion.key]?.[id], gauss, uniform),
    ),
  );
  const settled = Float64Array.from(
    ids.flatMap((id) => utilitiesOf(card, evidence, id).map((utility) => utility ?? 0.5)),
  );
  const scoreOf = (utilities: Float64Array, own: Float64Array, contender: number): number => {
    let sum = 0;
    for (let at = 0; at < terms; at += 1) {
      sum += (own[at] ?? 0) * (utilities[contender * terms + at] ?? 0);
    }
    return 100 * sum;
  };
  const base = Float64Array.from(ids, (_, at) => scoreOf(settled, weights, at));
  const winner = ids.indexOf(winnerOf(card, evidence, ids) ?? '');
  const ranks = new Float64Array(count * count);
  const wins = new Float64Array(count * count);
  const turned = new Float64Array(terms + 1);
  const drawn = new Float64Array(count * terms);
  const drawnWeights = new Float64Array(terms);
  const scores = new Float64Array(count);
  const order = new Int32Array(count);
  for (let draw = 0; draw < draws; draw += 1) {
    for (let at = 0; at < drawn.length; at += 1) drawn[at] = valueDraws[at]?.() ?? 0;
    let total = 0;
    for (let at = 0; at < terms; at += 1) {
      drawnWeights[at] = weightDraws[at]?.() ?? 0;
      total += drawnWeights[at] ?? 0;
    }
    for (let at = 0; at < terms; at += 1) {
      // Very loose weights can all be drawn as nothing; then they stay as they are.
      drawnWeights[at] = total > 0 ? (drawnWeights[at] ?? 0) / total : (weights[at] ?? 0);
    }
    for (let at = 0; at < count; at += 1) scores[at] = scoreOf(drawn, drawnWeights, at);
    rank(scores, order);
    countPlaces(scores, order, ranks, wins);
    // What the answer hangs on: one thing moves, all others stay at their estimates.
    for (let at = 0; at < terms; at += 1) {
      const moved = (contender: number) => {
        const place = contender * terms + at;
        const change = (drawn[place] ?? 0) - (settled[place] ?? 0);
        return (base[contender] ?? 0) + 100 * (weights[at] ?? 0) * change;
      };
      const own = moved(winner);
      for (let other = 0; other < count; other += 1) {
        if (other !== winner && moved(other) > own + SAME) {
          turned[at] = (turned[at] ?? 0) + 1;
          break;
        }
      }
    }
    const own = scoreOf(settled, drawnWeights, winner);
    for (let other = 0; other < count; other += 1) {
      if (other !== winner && scoreOf(settled, drawnWeights, other) > own + SAME) {
        turned[terms] = (turned[terms] ?? 0) + 1;
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

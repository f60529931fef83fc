import { Matrix, inverse, solve } from 'ml-matrix';
import { tQuantile, zQuantile, type Interval } from '../../statistics/stats';
import { groupBy } from '../../model/study';

/** A ballot of a paired panel, by the contenders whose specimens were shown. */
export interface PairedBallot {
  judge: string;
  first: string;
  second: string;
  /** What share of a win goes to the first: 1, 0, or ½ for a tie. */
  share: 1 | 0 | 0.5;
}

/** How a contender stands in a paired panel. */
export interface Ability {
  /** Log of its ability over the reference's, with Wald's interval; the reference is 0 without one. */
  log_ability: Interval | null;
  /**
   * The same, ballots of a judge taken as dependent, never narrower than Wald's; null where every judge has one
   * ballot, or where there are fewer than six of them (`FEW_JUDGES` is noted then).
   */
  log_ability_by_judge: Interval | null;
  /** It was never, or always, the lesser: no number says by how much. */
  unbounded: 'above' | 'below' | null;
  wins: number;
  losses: number;
  ties: number;
  notes: string[];
}

/** With fewer judges who each have several ballots their scatter cannot be told. */
const FEWEST_JUDGES = 6;

/** Why a panel whose judges have several ballots each has no verdict. */
export const FEW_JUDGES = 'few judges: at least six, or one ballot each';

const MOST_STEPS = 100;

/**
 * Abilities by the model of Bradley and Terry, by maximum likelihood, a tie as half a win each.
 *
 * @param reference the contender that stands at 0
 * @param alpha intervals are two-sided 1 − alpha
 * @see Bradley and Terry, 1952; Ford, 1957 (when the estimate exists); Cameron and Miller, 2015
 *   (variance clustered by judge)
 * @example abilitiesOf(
 *   [1, 1, 1, 0].map((share, at) => ({ judge: `${at}`, first: 'a', second: 'b', share })),
 *   'b',
 *   0.05,
 * ).a.log_ability // { estimate: 1.0986, low: -1.1646, high: 3.3618 }
 */
export function abilitiesOf(
  ballots: readonly PairedBallot[],
  reference: string | null,
  alpha: number,
): Record<string, Ability> {
  const contenders = [...new Set(ballots.flatMap(({ first, second }) => [first, second]))].sort();
  const { bounded, unbounded } = withoutUnbounded(contenders, ballots);
  const isFitted = reference !== null && bounded.has(reference);
  const linked = isFitted ? linkedWith(reference, among(ballots, bounded)) : null;
  const fit =
    linked && fitAbilities(among(ballots, linked.both), linked.both, reference ?? '', alpha);
  return Object.fromEntries(
    contenders.map((id): [string, Ability] => {
      const tally = tallyOf(id, ballots);
      if (fit && linked.both.has(id)) {
        const notes = fit.isFew ? [FEW_JUDGES] : [];
        return [id, { ...fit.of(id), unbounded: null, ...tally, notes }];
      }
      const side =
        unbounded.get(id) ??
        (linked?.beats.has(id) ? 'above' : linked?.isBeaten.has(id) ? 'below' : null);
      const note = !isFitted
        ? 'the reference has no bounded ability in this panel'
        : side === null
          ? 'cannot be linked with the reference by wins both ways'
          : `never ${side === 'above' ? 'lost' : 'won'} where it could be told: no bound`;
      return [
        id,
        {
          log_ability: null,
          log_ability_by_judge: null,
          unbounded: side,
          ...tally,
          notes: [note],
        },
      ];
    }),
  );
}

const among = (ballots: readonly PairedBallot[], ids: ReadonlySet<string>): PairedBallot[] =>
  ballots.filter(({ first, second }) => ids.has(first) && ids.has(second));

/** The share of a ballot's win that goes to a contender of it. */
const shareOf = (id: string, { first, share }: PairedBallot): number =>
  first === id ? share : 1 - share;

function tallyOf(id: string, ballots: readonly PairedBallot[]) {
  const shares = ballots
    .filter(({ first, second }) => first === id || second === id)
    .map((ballot) => shareOf(id, ballot));
  const count = (share: number) => shares.filter((one) => one === share).length;
  return { wins: count(1), losses: count(0), ties: count(0.5) };
}

/** Takes out those who never lost or never won, with their ballots, until nobody is left out. */
function withoutUnbounded(contenders: readonly string[], ballots: readonly PairedBallot[]) {
  const bounded = new Set(contenders);
  const unbounded = new Map<string, 'above' | 'below'>();
  for (;;) {
    const left = among(ballots, bounded);
    const found = [...bounded].flatMap((id): [string, 'above' | 'below'][] => {
      const { wins, losses, ties } = tallyOf(id, left);
      if (wins + losses + ties === 0 || ties > 0) return [];
      return losses === 0 ? [[id, 'above']] : wins === 0 ? [[id, 'below']] : [];
    });
    if (found.length === 0) return { bounded, unbounded };
    for (const [id, side] of found) {
      bounded.delete(id);
      unbounded.set(id, side);
    }
  }
}

/** Who is linked with the reference by wins: both ways, only over it, only under it. */
function linkedWith(reference: string, ballots: readonly PairedBallot[]) {
  const reached = (isDown: boolean): Set<string> => {
    const seen = new Set([reference]);
    const queue = [reference];
    for (let at = queue.pop(); at !== undefined; at = queue.pop()) {
      for (const ballot of ballots) {
        if (ballot.first !== at && ballot.second !== at) continue;
        const other = ballot.first === at ? ballot.second : ballot.first;
        const share = shareOf(at, ballot);
        if (!seen.has(other) && (isDown ? share > 0 : share < 1)) {
          seen.add(other);
          queue.push(other);
        }
      }
    }
    return seen;
  };
  const [isBeaten, beats] = [reached(true), reached(false)];
  return { isBeaten, beats, both: new Set([...isBeaten].filter((id) => beats.has(id))) };
}

/** Newton's method on the log-likelihood, which is concave; the reference stays at 0. */
function fitAbilities(
  ballots: readonly PairedBallot[],
  ids: ReadonlySet<string>,
  reference: string,
  alpha: number,
): { isFew: boolean; of: (id: string) => Pick<Ability, 'log_ability' | 'log_ability_by_judge'> } {
  const free = [...ids].filter((id) => id !== reference).sort();
  const at = new Map(free.map((id, place) => [id, place]));
  const theta = free.map(() => 0);
  const abilityOf = (id: string) => theta[at.get(id) ?? -1] ?? 0;
  const expected = ({ first, second }: PairedBallot) =>
    1 / (1 + Math.exp(abilityOf(second) - abilityOf(first)));
  /** Derivative of the log-likelihood of some ballots. */
  const score = (some: readonly PairedBallot[]): number[] => {
    const gradient = free.map(() => 0);
    for (const ballot of some) {
      const excess = ballot.share - expected(ballot);
      const [i, j] = [at.get(ballot.first), at.get(ballot.second)];
      if (i !== undefined) gradient[i] = (gradient[i] ?? 0) + excess;
      if (j !== undefined) gradient[j] = (gradient[j] ?? 0) - excess;
    }
    return gradient;
  };
  const information = (): Matrix => {
    const matrix = Matrix.zeros(free.length, free.length);
    for (const ballot of ballots) {
      const p = expected(ballot);
      const [i, j] = [at.get(ballot.first), at.get(ballot.second)];
      const add = (row: number, column: number, value: number) =>
        matrix.set(row, column, matrix.get(row, column) + value);
      if (i !== undefined) add(i, i, p * (1 - p));
      if (j !== undefined) add(j, j, p * (1 - p));
      if (i !== undefined && j !== undefined) {
        add(i, j, -p * (1 - p));
        add(j, i, -p * (1 - p));
      }
    }
    return matrix;
  };
  const likelihood = () =>
    ballots.reduce((total, ballot) => {
      const p = expected(ballot);
      return total + ballot.share * Math.log(p) + (1 - ballot.share) * Math.log(1 - p);
    }, 0);
  for (let step = 0; step < MOST_STEPS && free.length > 0; step += 1) {
    const before = likelihood();
    const move = solve(information(), Matrix.columnVector(score(ballots))).to1DArray();
    let factor = 1;
    const start = [...theta];
    do {
      start.forEach((value, place) => {
        theta[place] = value + factor * (move[place] ?? 0);
      });
      factor /= 2;
    } while (likelihood() < before - 1e-12 && factor > 1e-6);
    if (Math.max(...move.map(Math.abs)) < 1e-12) break;
  }
  const wald = free.length === 0 ? Matrix.zeros(0, 0) : inverse(information());
  const judges = [...groupBy(ballots, (ballot) => ballot.judge).values()];
  const isRepeated = judges.some((own) => own.length > 1);
  const isClustered = isRepeated && judges.length >= FEWEST_JUDGES;
  const clustered = clusteredBy({ isClustered, free, judges, score, wald });
  const interval = (place: number, variance: number, quantile: number): Interval => {
    const estimate = theta[place] ?? 0;
    const half = quantile * Math.sqrt(variance);
    return { estimate, low: estimate - half, high: estimate + half };
  };
  const of = (id: string) => {
    const place = at.get(id);
    if (place === undefined) {
      const own: Interval = { estimate: 0, low: null, high: null, notes: ['the reference'] };
      return { log_ability: own, log_ability_by_judge: isClustered ? own : null };
    }
    const plain = wald.get(place, place);
    return {
      log_ability: interval(place, plain, zQuantile(1 - alpha / 2)),
      log_ability_by_judge:
        clustered &&
        interval(
          place,
          // Few judges may agree by chance more than ballots ever do.
          Math.max(clustered.get(place, place), plain),
          tQuantile(1 - alpha / 2, judges.length - 1),
        ),
    };
  };
  return { isFew: isRepeated && !isClustered, of };
}

interface ClusteredByGiven {
  isClustered: boolean;
  free: string[];
  judges: PairedBallot[][];
  score: (some: readonly PairedBallot[]) => number[];
  wald: Matrix;
}

/**
 * The covariance by judge: the gradients of each judge’s ballots between the inverse information
 * (Liang and Zeger 1986).
 */
function clusteredBy({ isClustered, free, judges, score, wald }: ClusteredByGiven) {
  let clustered: Matrix | null = null;
  if (isClustered && free.length > 0) {
    const meat = Matrix.zeros(free.length, free.length);
    for (const own of judges) {
      const gradient = Matrix.columnVector(score(own));
      meat.add(gradient.mmul(gradient.transpose()));
    }
    clustered = wald
      .mmul(meat)
      .mmul(wald)
      .mul(judges.length / (judges.length - 1));
  }
  return clustered;
}

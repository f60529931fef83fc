import { binomialUpperP, clopperPearson, type Interval } from '../../statistics/stats';
import { groupBy, type PanelKind, type Row } from '../../model/study';

/** How judges answered, whatever they answered. */
export interface PanelHabits {
  /** How often each place was chosen, from left to right; ties are no choice. */
  places: number[];
  /** Of two: exact, two-sided, against left and right alike. Null of three, and where nothing was chosen. */
  left_p: number | null;
  /** Of questions that a judge was asked twice: how often the answer was the same. */
  agreement: { asked: number; same: number; share: Interval } | null;
  judges: JudgeHabits[];
}

/** How one judge answered. */
export interface JudgeHabits {
  judge: string;
  ballots: number;
  ties: number;
  /** Right answers; null where there is no right one. */
  right: number | null;
  left: number;
  asked_again: number;
  same_again: number;
}

type Ballot = Row<'ballots'>;

/** The specimens of a ballot from left to right. */
export const itemsOf = ({ item_1, item_2, item_3 }: Ballot): string[] =>
  item_3 === null ? [item_1, item_2] : [item_1, item_2, item_3];

/** The specimen that a ballot chose; null for none. */
export const chosenOf = (ballot: Ballot): string | null =>
  ballot.choice === 'tie' ? null : (itemsOf(ballot)[Number(ballot.choice) - 1] ?? null);

/** Ballots of one judge on the same specimens: the same question, asked again. */
function askedAgain(own: readonly Ballot[]): { asked: number; same: number } {
  let [asked, same] = [0, 0];
  for (const ballots of groupBy(own, (row) => itemsOf(row).sort().join('\n')).values()) {
    const [first, ...again] = ballots;
    if (!first) continue;
    asked += again.length;
    same += again.filter((row) => chosenOf(row) === chosenOf(first)).length;
  }
  return { asked, same };
}

/**
 * How the judges of a panel answered: whether they lean to a side, and agree with themselves.
 *
 * @param isRight whether an answer is right, where there is a right one
 */
export function panelHabits(
  kind: PanelKind,
  ballots: readonly Ballot[],
  alpha: number,
  isRight: ((ballot: Ballot) => boolean) | null = null,
): PanelHabits {
  const places = Array.from(
    { length: kind === 'triangle' ? 3 : 2 },
    (_, place) => ballots.filter((row) => row.choice === String(place + 1)).length,
  );
  const [left = 0, right = 0] = places;
  const judges = [...groupBy(ballots, (row) => row.judge)].map(([judge, own]): JudgeHabits => {
    const { asked, same } = askedAgain(own);
    return {
      judge,
      ballots: own.length,
      ties: own.filter((row) => row.choice === 'tie').length,
      right: isRight && own.filter(isRight).length,
      left: own.filter((row) => row.choice === '1').length,
      asked_again: asked,
      same_again: same,
    };
  });
  const asked = judges.reduce((sum, one) => sum + one.asked_again, 0);
  const same = judges.reduce((sum, one) => sum + one.same_again, 0);
  return {
    places,
    left_p:
      kind === 'triangle' || left + right === 0
        ? null
        : Math.min(1, 2 * binomialUpperP(Math.max(left, right), left + right, 1 / 2)),
    agreement: asked === 0 ? null : { asked, same, share: clopperPearson(same, asked, alpha) },
    judges: judges.sort((a, b) => (a.judge < b.judge ? -1 : 1)),
  };
}

import { binomialUpperP, clopperPearson, mapInterval, type Interval } from '../../statistics/stats';
import { groupBy } from '../../model/study';

/** An answer that is right or wrong: of a triangle, or of a guess. */
export interface RightOrWrong {
  judge: string;
  isRight: boolean;
  /** When it was given, as an instant in ms; null where it is not known. */
  at: number | null;
  items: readonly string[];
}

/** Whether people can tell. */
export interface ToldApart {
  correct: number;
  /** Clopper–Pearson. */
  correct_share: Interval;
  /** Exact, one-sided, against guessing. */
  p: number | null;
  /** Share of people who can really tell, the lucky guesses taken out. */
  discriminators: Interval;
  /** Of each judge's first ballot, where a judge has several: they are not independent. */
  first_ballots: { ballots: number; correct: number; p: number | null } | null;
}

/**
 * Whether more answers are right than by guessing.
 *
 * @param chance of a right guess: 1/3 of a triangle, 1/2 of a guess
 * @see ISO 4120 (triangle test)
 * @param alpha intervals are two-sided 1 − alpha
 * @example toldApart(
 *   Array.from({ length: 10 }, (_, at) => ({ judge: `${at}`, isRight: at < 8, at: null, items: [] })),
 *   1 / 2,
 *   0.05,
 * ) // { correct: 8, p: 0.0547 }
 */
export function toldApart(
  answers: readonly RightOrWrong[],
  chance: number,
  alpha: number,
): ToldApart {
  const correct = answers.filter((one) => one.isRight).length;
  const correct_share = clopperPearson(correct, answers.length, alpha);
  const testOf = (own: readonly RightOrWrong[]) =>
    own.length === 0
      ? null
      : binomialUpperP(own.filter((one) => one.isRight).length, own.length, chance);
  const firsts = [...groupBy(answers, (one) => one.judge).values()].flatMap(
    (own) => [...own].sort(earlier)[0] ?? [],
  );
  return {
    correct,
    correct_share,
    p: testOf(answers),
    discriminators: mapInterval(correct_share, (share) =>
      Math.max(0, (share - chance) / (1 - chance)),
    ),
    first_ballots:
      firsts.length === answers.length
        ? null
        : {
            ballots: firsts.length,
            correct: firsts.filter((one) => one.isRight).length,
            p: testOf(firsts),
          },
  };
}

/** Orders by time, unknown last, then by the items as text. */
function earlier(a: RightOrWrong, b: RightOrWrong): number {
  const [left, right] = [a.at ?? Infinity, b.at ?? Infinity];
  if (left !== right) return left < right ? -1 : 1;
  const place = a.items.findIndex((item, at) => item !== b.items[at]);
  if (place < 0) return 0;
  return (a.items[place] ?? '') < (b.items[place] ?? '') ? -1 : 1;
}

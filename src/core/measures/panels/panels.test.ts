import { describe, expect, it } from 'vitest';
import { print, smallStudy, TWO_SIDES } from '../../../../tests/support/small-study';
import { evaluate } from '../../answers/results';
import {
  abilitiesOf,
  FEW_JUDGES,
  paceFrom,
  toldApart,
  type PairedBallot,
  type RightOrWrong,
} from '.';

/** `judge first second share`, a row a ballot. */
const ballots = (...rows: string[]): PairedBallot[] =>
  rows.map((row) => {
    const [judge = '', first = '', second = '', share] = row.split(' ');
    return { judge, first, second, share: Number(share) as 0 | 0.5 | 1 };
  });

// Estimates and standard errors by scipy.optimize on the same likelihood, and by its Hessian.
const TWELVE = ballots(
  'j1 A B 1',
  'j1 B C 1',
  'j1 A C 0.5',
  'j2 A B 0',
  'j2 B C 0',
  'j2 C A 0',
  'j3 A B 1',
  'j3 C B 1',
  'j3 A C 1',
  'j4 B A 0.5',
  'j4 B C 1',
  'j4 C A 1',
);

const SIX_MORE = ballots('j5 A B 0', 'j5 C B 0', 'j5 A C 1', 'j6 B A 1', 'j6 C A 0', 'j6 B C 0.5');

describe('paired panel', () => {
  it('estimates abilities over the reference, by ballots and by judges', () => {
    const found = abilitiesOf(TWELVE, 'A', 0.05);
    expect(found.A).toMatchObject({
      log_ability: { estimate: 0, low: null, high: null },
      unbounded: null,
      wins: 4,
      losses: 2,
      ties: 2,
    });
    expect(found.B?.log_ability?.estimate).toBeCloseTo(-0.5108256, 6);
    expect(found.B?.log_ability?.low).toBeCloseTo(-2.1547974, 6);
    expect(found.B?.log_ability?.high).toBeCloseTo(1.1331462, 6);
    // Four judges who each have three ballots are too few to say how judges differ.
    expect(found.B?.log_ability_by_judge).toBeNull();
    expect(found.B?.notes).toEqual([FEW_JUDGES]);
  });

  it('by judges is never narrower than by ballots, though judges agree by chance', () => {
    const found = abilitiesOf([...TWELVE, ...SIX_MORE], 'A', 0.05);
    // numpy: Wald’s variances 0.4615 and 0.4904 are the larger ones here; t(0.975; 5) = 2.5706.
    expect(found.B?.log_ability_by_judge?.low).toBeCloseTo(-1.7463665, 6);
    expect(found.C?.log_ability_by_judge?.low).toBeCloseTo(-2.4932605, 6);
    expect(found.C?.log_ability_by_judge?.high).toBeCloseTo(1.1069662, 6);
    expect(found.C?.log_ability?.low).toBeCloseTo(-2.0656603, 6);
    expect(found.B?.notes).toEqual([]);
  });

  it('of two is the logarithm of the odds', () => {
    const rows = [...Array<string>(7).fill('a A B 1'), ...Array<string>(3).fill('a A B 0')];
    const found = abilitiesOf(ballots(...rows), 'B', 0.05);
    expect(found.A?.log_ability?.estimate).toBeCloseTo(Math.log(7 / 3), 10);
    // Two judges are too few to say how they differ.
    expect(found.A?.log_ability_by_judge).toBeNull();
  });

  it('takes out who never lost or never won, and then whom that leaves without bound', () => {
    const found = abilitiesOf(
      // D beats all; E beats only D’s victim F, who then has no win left.
      [...TWELVE, ...ballots('j1 D A 1', 'j2 D B 1', 'j3 A F 1', 'j4 F E 1', 'j1 A E 1')],
      'A',
      0.05,
    );
    expect(found.D).toMatchObject({ log_ability: null, unbounded: 'above', wins: 2 });
    expect(found.E).toMatchObject({ log_ability: null, unbounded: 'below', losses: 2 });
    // F lost to A and won only over E, who is out.
    expect(found.F).toMatchObject({ log_ability: null, unbounded: 'below' });
    expect(found.B?.log_ability?.estimate).toBeCloseTo(-0.5108256, 6);
  });

  it('does not rank whom nothing links with the reference', () => {
    const apart = ballots('j1 X Y 1', 'j2 X Y 0');
    const found = abilitiesOf([...TWELVE, ...apart], 'A', 0.05);
    expect(found.X).toMatchObject({ log_ability: null, unbounded: null });
    expect(found.X?.notes).toEqual(['cannot be linked with the reference by wins both ways']);
    // Two groups that are linked one way only: the whole upper one is above.
    const oneWay = abilitiesOf([...TWELVE, ...apart, ...ballots('j3 X A 1')], 'A', 0.05);
    expect([oneWay.X?.unbounded, oneWay.Y?.unbounded]).toEqual(['above', 'above']);
  });

  it('says nothing in numbers where the reference is not bounded', () => {
    const found = abilitiesOf([...TWELVE, ...ballots('j1 D A 1')], 'D', 0.05);
    expect(Object.values(found).map((one) => one.log_ability)).toEqual([null, null, null, null]);
    expect(abilitiesOf(TWELVE, null, 0.05).B?.log_ability).toBeNull();
  });
});

const answer = (judge: string, isRight: boolean, more: Partial<RightOrWrong> = {}) => ({
  judge,
  isRight,
  at: null,
  items: [] as string[],
  ...more,
});

describe('how fast judges answer', () => {
  it('keeps a panel from a verdict where half of them hardly looked, until somebody has checked', () => {
    expect(paceFrom([1, 1.5, 1.9, 9], false)).toEqual({ median_s: 1.7, isWithheld: true });
    expect(paceFrom([1, 1.5, 1.9, 9], true).isWithheld).toBe(false);
    expect(paceFrom([1, 2, 2, 3], false)).toEqual({ median_s: 2, isWithheld: false });
    expect(paceFrom([], false)).toEqual({ median_s: null, isWithheld: false });
  });
});

describe('whether people can tell', () => {
  it('is an exact test against guessing, and a share with the lucky ones taken out', () => {
    const answers = Array.from({ length: 10 }, (_, at) => answer(`j${at}`, at < 5));
    const found = toldApart(answers, 1 / 3, 0.05);
    // Binomial tables: P(X ≥ 5) of 10 at 1/3. Discriminators: (½ − ⅓)/(⅔) = ¼.
    expect(found.p).toBeCloseTo(0.2131281, 7);
    expect(found.correct_share.low).toBeCloseTo(0.187086, 6);
    expect(found.discriminators.estimate).toBeCloseTo(0.25, 12);
    expect(found.discriminators.low).toBe(0);
    expect(found.first_ballots).toBeNull();
  });

  it('takes each judge’s first ballot where one has several', () => {
    const found = toldApart(
      [
        answer('a', true, { at: 200 }),
        answer('a', false, { at: 100 }),
        answer('a', true),
        answer('b', true, { items: ['s2', 's1'] }),
        answer('b', false, { items: ['s1', 's9'] }),
        answer('c', true),
      ],
      1 / 2,
      0.05,
    );
    // a’s at 100 and b’s of s1 are wrong; one of three is right: 1 − (1/2)³.
    expect(found.first_ballots).toMatchObject({ ballots: 3, correct: 1 });
    expect(found.first_ballots?.p).toBeCloseTo(7 / 8, 12);
  });

  it('without an answer is not known', () => {
    const found = toldApart([], 1 / 3, 0.05);
    expect(found).toMatchObject({ correct: 0, p: null, first_ballots: null });
    expect(found.discriminators.estimate).toBeNull();
  });
});

describe('panels of a study', () => {
  const study = smallStudy({
    ...TWO_SIDES,
    prints: [print('r', 'R'), print('c', 'C')],
    specimens: ['r1 r', 'r2 r', 'c1 c'].map((row) => {
      const [specimen_id, print_id] = row.split(' ');
      return { specimen_id, print_id };
    }),
    panels: [
      { panel_id: 'front', kind: 'paired', aspect: 'the front' },
      { panel_id: 'odd', kind: 'triangle', aspect: 'the odd one' },
      { panel_id: 'which', kind: 'guess', aspect: 'whose it is', target: 'C' },
      { panel_id: 'later', kind: 'guess', aspect: 'whose it is', target: 'C' },
    ],
    ballots: [
      ...['1', '2', 'tie'].map((choice, at) => ({
        panel_id: 'front',
        judge: `j${at}`,
        item_1: 'c1',
        item_2: 'r1',
        choice,
      })),
      ...['3', '1'].map((choice, at) => ({
        panel_id: 'odd',
        judge: `j${at}`,
        choice,
        item_1: 'r1',
        item_2: 'r2',
        item_3: 'c1',
      })),
      { panel_id: 'which', judge: 'j', item_1: 'r1', item_2: 'c1', choice: '2' },
    ],
  });
  const found = evaluate(study).panels;

  it('know whose the specimens are', () => {
    expect(found?.front).toMatchObject({ kind: 'paired', ballots: 3, judges: 3, ties: 1 });
    expect(found?.front).toMatchObject({
      abilities: { C: { wins: 1, losses: 1, ties: 1, log_ability: { estimate: 0 } } },
    });
    expect(found?.odd).toMatchObject({ kind: 'triangle', ballots: 2, correct: 1 });
    expect(found?.which).toMatchObject({
      kind: 'guess',
      correct: 1,
      correct_share: { estimate: 1 },
    });
  });

  it('without a ballot are there, and say so', () => {
    expect(found?.later).toMatchObject({ ballots: 0, p: null, notes: ['no ballot yet'] });
    expect(evaluate(smallStudy({ ...TWO_SIDES, prints: [print('r', 'R')] })).panels).toBeNull();
  });
});

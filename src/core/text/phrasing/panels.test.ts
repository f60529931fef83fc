import { describe, expect, it } from 'vitest';
import {
  abilitiesOf,
  panelHabits,
  toldApart,
  type PairedBallot,
  type PairedPanel,
} from '../../measures/panels';
import { preferencesOf, describeHabits, describePanel } from '.';

const named = (id: string) => `machine ${id}`;

/** A paired panel of ballots `first second share`, so many times each. */
function paired(...rows: [string, number][]): PairedPanel {
  const ballots = rows.flatMap(([row, times]) => {
    const [first = '', second = '', share] = row.split(' ');
    return Array.from({ length: times }, (_, at): PairedBallot => ({
      judge: `${row} ${at}`,
      first,
      second,
      share: Number(share) as 0 | 1,
    }));
  });
  return {
    kind: 'paired',
    ballots: ballots.length,
    judges: ballots.length,
    notes: [],
    ties: 0,
    abilities: abilitiesOf(ballots, 'A', 0.05),
  };
}

const telling = (kind: 'triangle' | 'guess', right: number, of: number, judges = of) => ({
  kind,
  ballots: of,
  judges,
  notes: [],
  ...toldApart(
    Array.from({ length: of }, (_, at) => ({
      judge: `j${at % judges}`,
      isRight: at < right,
      at,
      items: [],
    })),
    kind === 'triangle' ? 1 / 3 : 1 / 2,
    0.05,
  ),
});

describe('what a panel found, in words', () => {
  it('is whom people prefer, as shares of people, and who shows no preference', () => {
    const panel = paired(
      ['B A 1', 30],
      ['B A 0', 10],
      ['C A 1', 11],
      ['C A 0', 9],
      ['A D 1', 16],
      ['A D 0', 4],
    );
    // 30 of 40 are 75 of 100; Wald on the odds: ln 3 ± 1.96·√(1/30 + 1/10) is 59.4 to 86.0.
    expect(describePanel(panel, 'A', named, 0.05)).toEqual([
      'Preferred to machine A: machine B (75 of 100 people, 59 to 86).',
      'machine A is preferred to machine D (20 of 100 people, 8 to 43).',
      'Between machine A and machine C (55 of 100 people, 34 to 75) no preference shows.',
    ]);
    expect(preferencesOf(panel, 'A').map(({ contender, verdict }) => [contender, verdict])).toEqual(
      [
        ['B', 'preferred'],
        ['C', 'no preference'],
        ['A', 'reference'],
        ['D', 'not preferred'],
      ],
    );
  });

  it('says what has no bound, and what cannot be ranked', () => {
    const panel = paired(
      ['B A 1', 5],
      ['A D 1', 5],
      ['A E 1', 3],
      ['A E 0', 3],
      ['X Y 1', 2],
      ['X Y 0', 2],
    );
    const said = describePanel(panel, 'A', named, 0.05).join('\n');
    expect(said).toContain('Preferred every time, so there is no upper limit: machine B.');
    expect(said).toContain('Never preferred, so without bound: machine D.');
    expect(said).toContain('Cannot be ranked by these ballots: machine X and machine Y.');
    expect(describePanel(paired(), 'A', named, 0.05)).toEqual(['No one has judged yet.']);
  });

  it('is whether people can tell, against guessing', () => {
    // Binomial tables: P(X ≥ 15 of 24 at 1/3) = 0.0031.
    expect(describePanel(telling('triangle', 15, 24), null, named, 0.05)).toEqual([
      'People can see a difference: 15 of 24 answers were right, 8 by guessing alone (p = 0.003).',
      expect.stringMatching(/^Of 100 people about 44 really can \(\d+ to \d+\)\.$/),
    ]);
    expect(describePanel(telling('guess', 11, 20), null, named, 0.05)).toEqual([
      'No difference could be shown: 11 of 20 answers were right, 10 by guessing alone (p = 0.412).',
      expect.stringMatching(/no more than 5\d of 100 people really can\.$/),
    ]);
    expect(describePanel(telling('triangle', 40, 40), null, named, 0.05)[0]).toContain(
      '(p < 0.001)',
    );
  });

  it('speaks by first answers where a judge gave several', () => {
    const [first] = describePanel(telling('guess', 18, 20, 10), null, named, 0.05);
    expect(first).toBe(
      'People can see a difference: 10 of 10 first answers were right, 5 by guessing alone (p < 0.001).',
    );
  });

  it('and how its judges answered', () => {
    const ballot = (judge: string, item_1: string, item_2: string, choice: '1' | '2') => ({
      panel_id: 'p',
      judge,
      item_1,
      item_2,
      item_3: null,
      choice,
      at: null,
    });
    const leaning = Array.from({ length: 12 }, (_, at) => ballot(`j${at}`, 'a', 'b', '1'));
    expect(describeHabits(panelHabits('paired', leaning, 0.05), 0.05)[0]).toMatch(
      /^They lean to one side: 12 times left, 0 times right \(p = 0\.000\)/,
    );
    const steady = [ballot('j', 'a', 'b', '1'), ballot('j', 'b', 'a', '2')];
    expect(describeHabits(panelHabits('paired', steady, 0.05), 0.05)).toEqual([
      'Judges gave the same answer to a repeated question in 1 of 1 cases.',
      'They lean to no side: 1 times left, 1 times right.',
    ]);
    expect(describeHabits(panelHabits('triangle', [], 0.05), 0.05)).toEqual([]);
  });
});

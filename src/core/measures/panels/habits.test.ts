import { describe, expect, it } from 'vitest';
import { chosenOf, panelHabits } from '.';
import type { PanelKind, Row } from '../../model/study';

/** `judge item_1 item_2 [item_3] choice`, a row a ballot. */
const ballots = (...rows: string[]): Row<'ballots'>[] =>
  rows.map((row) => {
    const [judge = '', item_1 = '', item_2 = '', ...rest] = row.split(' ');
    const choice = rest.pop() as Row<'ballots'>['choice'];
    return { panel_id: 'p', judge, item_1, item_2, choice, item_3: rest[0] ?? null, at: null };
  });
const habits = (kind: PanelKind, ...rows: string[]) => panelHabits(kind, ballots(...rows), 0.05);

describe('how judges answer', () => {
  it('leans to a side, by the exact test of left and right', () => {
    const found = habits(
      'paired',
      ...Array.from({ length: 9 }, (_, at) => `j${at} a b 1`),
      'j9 a b 2',
      'j10 a b tie',
    );
    expect(found.places).toEqual([9, 1]);
    // Binomial tables: 2·(10 + 1)/1024.
    expect(found.left_p).toBeCloseTo(22 / 1024, 12);
    expect(habits('guess', 'j a b 1', 'k a b 2').left_p).toBe(1);
    expect(habits('paired', 'j a b tie').left_p).toBeNull();
    expect(habits('triangle', 'j a b c 3', 'k a b c 1')).toMatchObject({
      places: [1, 0, 1],
      left_p: null,
    });
  });

  it('agrees with itself where the same specimen is chosen, on whichever side it stands', () => {
    const found = habits(
      'paired',
      'j a b 1',
      'j c d tie',
      'j b a 2',
      'j d c tie',
      'k a b 1',
      'k b a 1',
      'k a d 1',
    );
    expect(found.agreement).toMatchObject({ asked: 3, same: 2 });
    expect(found.agreement?.share.estimate).toBeCloseTo(2 / 3, 12);
    // Clopper and Pearson of 2 of 3.
    expect(found.agreement?.share.low).toBeCloseTo(0.094299, 5);
    expect(found.judges).toEqual([
      { judge: 'j', ballots: 4, ties: 2, right: null, left: 1, asked_again: 2, same_again: 2 },
      { judge: 'k', ballots: 3, ties: 0, right: null, left: 3, asked_again: 1, same_again: 0 },
    ]);
  });

  it('is right so often, where there is a right answer', () => {
    const rows = ballots('j a b 1', 'j b a 1', 'k a b 2');
    const found = panelHabits('guess', rows, 0.05, (row) => chosenOf(row) === 'a');
    expect(found.judges.map(({ judge, right }) => [judge, right])).toEqual([
      ['j', 1],
      ['k', 0],
    ]);
  });

  it('is not asked where nobody was asked twice', () => {
    expect(habits('paired', 'j a b 1', 'k a b 1').agreement).toBeNull();
    expect(habits('triangle')).toEqual({
      places: [0, 0, 0],
      left_p: null,
      agreement: null,
      judges: [],
    });
  });

  it('chose a specimen, or none', () => {
    expect(ballots('j a b 2', 'j a b tie', 'j a b c 3').map(chosenOf)).toEqual(['b', null, 'c']);
  });
});

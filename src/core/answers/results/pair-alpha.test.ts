import { describe, expect, it } from 'vitest';
import { print, smallStudy, TWO_SIDES } from '../../../../tests/support/small-study';
import { differencesOf, differencesOfPair, openContext } from '.';

/** Four contenders, three timed prints each. */
const study = smallStudy({
  ...TWO_SIDES,
  contenders: ['R', 'C', 'D', 'E'].map((id) => ({
    contender_id: id,
    label: id,
    machine_id: 'mr',
    profile_id: 'p',
  })),
  prints: Object.entries({
    R: [100, 104, 98],
    C: [101, 109, 97],
    D: [120, 131, 118],
    E: [90, 96, 88],
  }).flatMap(([id, times]) =>
    times.map((print_s, at) => print(`${id}${at}`, id, { print_s, repeat: at + 1 })),
  ),
});
const context = openContext(study, {});
const others = ['C', 'D', 'E'];
const rowOf = (contender: string, other: string) =>
  differencesOfPair(context, contender, other, 'R').time_index?.[0];

describe('two contenders head to head', () => {
  it('repeat the study’s own row where one is the reference, every figure and verdict', () => {
    const family = differencesOf(context, others, 'R');
    for (const contender of others) {
      for (const [figure, rows] of Object.entries(
        differencesOfPair(context, contender, 'R', 'R'),
      )) {
        expect(rows).toEqual(family[figure]?.filter((row) => row.contender === contender));
      }
    }
    expect(family.time_index).toHaveLength(3);
  });

  it('are tested at the same error probability where neither is, and are each other’s mirror', () => {
    const [one, mirror] = [rowOf('C', 'D'), rowOf('D', 'C')];
    // Three comparisons in the study: 1 − (1 − p)³, and not p as of a family of its own.
    expect(one?.p_adjusted).toBeCloseTo(1 - (1 - (one?.p ?? 0)) ** 3, 12);
    expect(mirror?.difference.low).toBeCloseTo(-(one?.difference.high ?? 0), 12);
    expect(mirror?.verdict === 'better').toBe(one?.verdict === 'worse');
    const reversed = rowOf('R', 'D');
    const own = differencesOf(context, others, 'R').time_index?.find(
      (row) => row.contender === 'D',
    );
    expect(reversed?.difference.low).toBeCloseTo(-(own?.difference.high ?? 0), 12);
  });

  it('are a family of their own where the study compares with nobody', () => {
    const [row] = differencesOfPair(context, 'C', 'D', null).time_index ?? [];
    expect(row?.p_adjusted).toBeCloseTo(row?.p ?? 0, 12);
  });
});

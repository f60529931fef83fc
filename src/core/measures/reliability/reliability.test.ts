import { describe, expect, it } from 'vitest';
import { print, smallStudy, TWO_SIDES } from '../../../../tests/support/small-study';
import { indexStudy, type Row } from '../../model/study';
import { modesOfAll, reliabilityOfAll, survivalOfAll } from '.';

const incident = (
  incident_id: string,
  print_id: string | null,
  more: Partial<Row<'incidents'>> = {},
) => ({
  incident_id,
  machine_id: 'mr',
  print_id,
  mode: 'loose-strands',
  cause: 'machine',
  ...more,
});

/** The reliability of contender R, and of its machine, over prints and incidents. */
function reliability(prints: Record<string, unknown>[], incidents?: Record<string, unknown>[]) {
  const index = indexStudy(smallStudy({ ...TWO_SIDES, prints, ...(incidents && { incidents }) }));
  const sets = reliabilityOfAll(index, 0.05);
  const own = sets.R;
  const machine = sets['machine:mr'];
  if (!own || !machine) throw new Error('R is not there');
  return { ...own, machine, index };
}

const many = (count: number, more: Partial<Row<'prints'>> = {}, from = 0) =>
  Array.from({ length: count }, (_, at) => print(`p${from + at}`, 'R', more));

describe('the share of successes', () => {
  it.each([
    // Published by Newcombe, Two-sided confidence intervals for the single proportion, 1998, table I.
    [81, 263, [0.2527, 0.3676], [0.2553, 0.3662]],
    [15, 148, [0.0578, 0.1617], [0.0624, 0.1605]],
    [0, 20, [0, 0.1684], [0, 0.1611]],
    [1, 29, [0.0009, 0.1776], [0.0061, 0.1718]],
  ] as const)('%i of %i', (good, all, exact, score) => {
    const prints = [...many(good), ...many(all - good, { outcome: 'failed' }, good)];
    const { all: own } = reliability(prints);
    expect([own.good, own.failed, own.prints]).toEqual([good, all - good, all]);
    expect(own.success.estimate).toBeCloseTo(good / all, 12);
    expect(own.success.low).toBeCloseTo(exact[0], 4);
    expect(own.success.high).toBeCloseTo(exact[1], 4);
    expect(own.success_wilson.low).toBeCloseTo(score[0], 4);
    expect(own.success_wilson.high).toBeCloseTo(score[1], 4);
  });

  it('is bounded where nothing failed: by 3/n, nearly', () => {
    const { all: own } = reliability(many(30));
    // The “rule of three” says 0.1; Jovanovic and Levy, 1997, give 0.0950 exactly.
    expect(own.failure_rate_below).toBeCloseTo(0.095, 4);
    expect(
      reliability([...many(29), ...many(1, { outcome: 'rescued' }, 29)]).all.failure_rate_below,
    ).toBeNull();
  });

  it('is not known without prints', () => {
    const { all: own } = reliability([print('other', 'C')]);
    expect(own.success).toMatchObject({ estimate: null, low: null, high: null });
    expect(own.failure_rate_below).toBeNull();
  });
});

describe('what the operator spoilt', () => {
  const prints = [
    ...many(8),
    print('op', 'R', { outcome: 'failed' }),
    print('both', 'R', { outcome: 'failed' }),
    print('silent', 'R', { outcome: 'aborted' }),
  ];
  const incidents = [
    incident('i1', 'op', { cause: 'operator' }),
    incident('i2', 'both', { cause: 'operator' }),
    incident('i3', 'both', { cause: 'machine' }),
  ];

  it('is left out where nobody else had a part in it', () => {
    const { all, without_operator } = reliability(prints, incidents);
    expect([all.prints, all.good]).toEqual([11, 8]);
    // A failure without any incident is nobody's in particular: it stays.
    expect([without_operator.prints, without_operator.good]).toEqual([10, 8]);
    expect([all.incidents, without_operator.incidents]).toEqual([3, 1]);
  });
});

describe('incidents', () => {
  it.each([
    // Exact limits of a Poisson count, as Garwood tabulated them in 1936.
    [0, 0, 3.689],
    [1, 0.0253, 5.572],
    [5, 1.6235, 11.668],
    [10, 4.795, 18.39],
  ])('%i in 100 h', (count, low, high) => {
    const prints = many(10, { print_s: 36_000 });
    const incidents = Array.from({ length: count }, (_, at) => incident(`i${at}`, `p${at % 10}`));
    // A study that keeps incidents, of whomever.
    const { all } = reliability(prints, [
      ...incidents,
      incident('other', null, { machine_id: 'mc' }),
    ]);
    expect(all.hours).toBeCloseTo(100, 9);
    expect(all.per_100_h.estimate).toBeCloseTo(count, 9);
    expect(all.per_100_h.low).toBeCloseTo(low, 3);
    expect(all.per_100_h.high).toBeCloseTo(high, 2);
  });

  it('are not counted where nobody kept any, which is not none', () => {
    const { all } = reliability(many(2, { print_s: 3600 }));
    expect([all.incidents, all.per_100_h.estimate, all.downtime_share]).toEqual([null, null, null]);
  });

  it('say how long it stood still and what hands it took', () => {
    const { all } = reliability(many(3, { print_s: 3600 }), [
      incident('i1', 'p0', { downtime_s: 3600, hands_s: 180 }),
      incident('i2', 'p1', { hands_s: 60 }),
    ]);
    expect(all.downtime_share).toBeCloseTo(1 / 4, 12);
    expect(all.hands_min_per_100_h).toBeCloseTo((100 * 4) / 3, 9);
  });

  it('between prints are the machine’s, and no contender’s', () => {
    const { all, machine } = reliability(many(2), [incident('i1', null), incident('i2', 'p0')]);
    expect([all.incidents, machine.all.incidents]).toEqual([1, 2]);
  });

  it('are listed by what happened, the most frequent first, with what they cost', () => {
    const prints = [
      print('a', 'R', { outcome: 'failed', filament_g: 30 }),
      print('b', 'R', { outcome: 'rescued', filament_g: 20 }),
    ];
    const { index } = reliability(prints, [
      incident('i1', 'a', { mode: 'clogged', downtime_s: 600 }),
      incident('i2', 'a', { mode: 'loose-strands', cause: 'operator' }),
      incident('i3', 'b', { mode: 'loose-strands' }),
    ]);
    expect(modesOfAll(index).R).toEqual([
      { mode: 'loose-strands', count: 2, downtime_s: 0, lost_g: 0, operator_count: 1 },
      { mode: 'clogged', count: 1, downtime_s: 600, lost_g: 30, operator_count: 0 },
    ]);
  });
});

describe('hours between incidents', () => {
  it('fall by the share of gaps that ended there, the last one without an end', () => {
    // Ten prints of ten hours; something went wrong after 20, 30 and 70 hours.
    const prints = many(10, { print_s: 36_000 }).map((row, at) => ({ ...row, order: at + 1 }));
    const { index } = reliability(prints, [
      incident('i1', 'p1'),
      incident('i2', 'p2'),
      incident('i3', 'p6'),
      incident('i4', 'p9', { cause: 'operator' }),
    ]);
    const rows = survivalOfAll(index, 0.05)['machine:mr'] ?? [];
    // Gaps of 20, 10 and 40 h ended, one of 30 h did not: S is 3/4, 2/4, and 0 at the last.
    expect(rows.map(({ t_h, at_risk, events, s }) => [t_h, at_risk, events, s])).toEqual([
      [10, 4, 1, 0.75],
      [20, 3, 1, 0.5],
      [40, 1, 1, 0],
    ]);
    // Greenwood: variance of log S(10) is 1/(4·3); exp(1.96·√(1/12)) = 1.7608.
    expect(rows[0]?.low).toBeCloseTo(0.75 / 1.7608, 4);
    expect(rows[0]?.high).toBe(1);
    expect([rows[2]?.low, rows[2]?.high]).toEqual([null, null]);
  });

  it('are none where nothing went wrong', () => {
    const { index } = reliability(many(4, { print_s: 3600 }), []);
    expect(survivalOfAll(index, 0.05)['machine:mr']).toEqual([]);
  });
});

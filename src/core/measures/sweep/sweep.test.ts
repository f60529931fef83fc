import { describe, expect, it } from 'vitest';
import { print, smallStudy } from '../../../../tests/support/small-study';
import { evaluate } from '../../answers/results';
import type { Study } from '../../model/study';
import { allGoodNeeded, shareDifference, sweepOf, type SweepFigure } from '.';

describe('difference of two shares', () => {
  // scipy.stats.beta for the limits, Newcombe's formula by hand; at 90 %.
  it.each([
    [56, 70, 48, 80, 0.2, 0.0676429, 0.3233272],
    [8, 10, 10, 10, -0.2, -0.5069013, 0.1060309],
    [10, 10, 10, 10, 0, -0.2588656, 0.2588656],
  ])('%d of %d less %d of %d', (good, prints, otherGood, otherPrints, d, low, high) => {
    const other = { good: otherGood, prints: otherPrints };
    const found = shareDifference({ good, prints }, other, 0.1);
    expect(found.estimate).toBeCloseTo(d, 12);
    expect(found.low).toBeCloseTo(low, 6);
    expect(found.high).toBeCloseTo(high, 6);
  });

  it('without a print is not known', () => {
    const none = { good: 0, prints: 0 };
    expect(shareDifference(none, { good: 1, prints: 1 }, 0.1).estimate).toBeNull();
    expect(shareDifference({ good: 1, prints: 1 }, none, 0.1).estimate).toBeNull();
  });

  it('is shown by so many that are all good', () => {
    // The smallest n with 1 − 0.05^(1/n) below δ: ln 0.05/ln 0.9 = 28.4; ln 0.05/ln 0.8 = 13.4.
    expect([0.1, 0.2, 0.5].map((delta) => allGoodNeeded(delta, 0.05))).toEqual([29, 14, 5]);
    expect(allGoodNeeded(1.5, 0.05)).toBe(1);
    expect(allGoodNeeded(1e-9, 0.05)).toBeNull();
  });
});

const STEPS = [100, 150, 200].map((value, at) => ({ contender_id: `S${at}`, value }));
const SWEPT = { setting: 'speed_outer_wall_mm_s', unit: 'mm/s', steps: STEPS };
const BASE = [0.09, 0.1, 0.08];

/** A figure whose per-print values are given for each step; smaller is better. */
function figure(values: readonly (readonly number[])[], more: Partial<SweepFigure> = {}) {
  const of = (id: string) => {
    const own = values[Number(id.slice(1))] ?? [];
    return own.length === 0 ? new Map() : new Map([['part', own]]);
  };
  return {
    key: 'accuracy_mm',
    isLargerBetter: false,
    delta: 0.03,
    estimateOf: (id: string) => (of(id).size === 0 ? null : { estimate: 1, low: null, high: null }),
    comparison: {
      kind: 'values',
      of: (contender: string, reference: string) => ({
        contender,
        contenderValues: of(contender),
        referenceValues: of(reference),
      }),
    },
    ...more,
  } satisfies SweepFigure as SweepFigure;
}
const swept = (...figures: SweepFigure[]) =>
  sweepOf(
    SWEPT,
    figures,
    (id) => ({ estimate: id === 'S2' ? 0.7 : 0.8, low: null, high: null }),
    0.05,
  );

describe('a sweep', () => {
  it('holds as far as each step is shown not to be worse than the first', () => {
    // Welch at 90 % by scipy: 0.02 (0.0026 … 0.0374), inside 0.04; twice as far it is not.
    const found = swept(figure([BASE, [0.1, 0.12, 0.11], [0.2, 0.22, 0.21]], { delta: 0.04 }));
    const steps = found.figures.accuracy_mm?.steps ?? [];
    expect(steps[1]?.difference?.low).toBeCloseTo(0.0025935, 6);
    expect(steps[1]?.difference?.high).toBeCloseTo(0.0374065, 6);
    expect(steps.map(({ shown }) => shown)).toEqual([null, true, false]);
    expect(found).toMatchObject({ reference: 'S0', holds_to: 'S1', gain: { estimate: 0.8 } });
    expect(found.limited_by).toEqual([
      { figure: 'accuracy_mm', why: 'lost', prints_needed: null, notes: [] },
    ]);
  });

  it('says with how many prints a step would be shown that is not lost', () => {
    // Nothing between them, but they scatter: s² pooled 1e-4. By scipy n = 7 for δ = 0.015.
    const found = swept(figure([BASE, BASE, BASE], { delta: 0.015 }));
    expect(found.holds_to).toBeNull();
    expect(found.limited_by).toEqual([
      { figure: 'accuracy_mm', why: 'not_shown', prints_needed: 7, notes: [] },
    ]);
    expect(found.gain).toBeNull();
    expect(found.figures.accuracy_mm?.steps.map(({ shown }) => shown)).toEqual([null, false, null]);
  });

  it('is described, not tested, where no smallest difference is stated', () => {
    const found = swept(figure([BASE, BASE, BASE], { delta: null }));
    const own = found.figures.accuracy_mm;
    expect(own?.steps.map(({ shown }) => shown)).toEqual([null, null, null]);
    expect(own?.steps[2]?.difference?.estimate).toBeCloseTo(0, 12);
    expect(found).toMatchObject({ holds_to: null, limited_by: [] });
    expect(found.notes).toEqual(['no figure has a smallest difference: nothing is tested']);
  });

  it('ends where a figure has one print a side, or no value', () => {
    const single = swept(figure([[0.1], [0.1], [0.1]]));
    expect(single.figures.accuracy_mm?.steps[1]).toMatchObject({
      shown: false,
      difference: { low: null },
      notes: ['a side has one print per artefact and material: no interval'],
    });
    expect(single.limited_by[0]).toMatchObject({ why: 'not_shown', prints_needed: null });
    const hole = swept(figure([BASE, [], BASE]));
    expect(hole.figures.accuracy_mm?.steps[1]).toMatchObject({
      estimate: null,
      difference: null,
      shown: false,
      notes: ['no value on a side, or no artefact in common'],
    });
    expect(swept(figure([[], [], []])).notes).toContain('accuracy_mm: no step has evidence for it');
  });

  it('of several figures is the least of them, and names all that stop it', () => {
    const good = figure([BASE, BASE, BASE], { key: 'photo:w/ringing/flat', delta: 0.1 });
    const bad = figure([BASE, BASE, [0.3, 0.31, 0.29]], { key: 'accuracy_mm', delta: 0.1 });
    const worse = figure(
      [
        [90, 91, 92],
        [90, 91, 92],
        [60, 61, 62],
      ],
      {
        key: 'surface',
        isLargerBetter: true,
        delta: 5,
      },
    );
    const found = swept(good, bad, worse);
    expect(found.figures['photo:w/ringing/flat']?.holds_to).toBe('S2');
    expect(found.holds_to).toBe('S1');
    expect(found.limited_by.map(({ figure: key, why }) => `${key} ${why}`)).toEqual([
      'accuracy_mm lost',
      'surface lost',
    ]);
    expect(swept(good)).toMatchObject({ holds_to: 'S2', limited_by: [], gain: { estimate: 0.7 } });
  });

  it('tests shares of successes without repeats', () => {
    const shares = (goods: readonly number[]): SweepFigure => ({
      ...figure([BASE, BASE, BASE], { key: 'success', isLargerBetter: true, delta: 0.3 }),
      comparison: {
        kind: 'shares',
        of: (id) => ({ good: goods[Number(id.slice(1))] ?? 0, prints: 10 }),
      },
    });
    // 10 of 10 on both sides: −0.2589 lies inside 0.3; 8 of 10: −0.5069 does not.
    const found = swept(shares([10, 10, 8]));
    expect(found.figures.success?.steps.map(({ shown }) => shown)).toEqual([null, true, false]);
    // ln 0.05/ln 0.7 = 8.4: nine would do, and more than the ten that there are.
    expect(found.limited_by).toMatchObject([{ figure: 'success', prints_needed: 11 }]);
  });
});

/** A sweep of three speeds with two prints a step; the wall is measured. */
function speeds(more: Partial<Study['meta']> = {}): Study {
  const steps = ['S1', 'S2', 'S3'];
  const prints = steps.flatMap((id, at) =>
    [1, 2].map((repeat) =>
      print(`${id}-${repeat}`, id, { repeat, print_s: 3600 / (1 + at) + repeat }),
    ),
  );
  return smallStudy(
    {
      machines: [{ machine_id: 'm', name: 'Machine' }],
      profiles: [{ profile_id: 'p', name: 'Tuned', kind: 'tuned' }],
      materials: [{ material_id: 'pla', type: 'PLA' }],
      contenders: steps.map((id) => ({
        contender_id: id,
        label: id,
        machine_id: 'm',
        profile_id: 'p',
      })),
      artefacts: [{ artefact_id: 'part', name: 'Part' }],
      dimensions: [
        {
          artefact_id: 'part',
          dimension_id: 'w',
          name: 'Width',
          axis: 'x',
          kind: 'external',
          nominal_mm: 20,
        },
      ],
      prints,
      specimens: prints.map(({ print_id }) => ({ specimen_id: `s-${String(print_id)}`, print_id })),
      readings: prints.map(({ print_id }, at) => ({
        specimen_id: `s-${String(print_id)}`,
        dimension_id: 'w',
        trial: 1,
        value_mm: 20 + (at < 4 ? 0.05 : 0.4) + (at % 2) * 0.01,
      })),
    },
    {
      intent: 'sweep',
      reference: 'S1',
      smallest_difference: { accuracy_mm: 0.1 },
      sweep: {
        setting: 'speed_outer_wall_mm_s',
        unit: 'mm/s',
        steps: steps.map((contender_id, at) => ({ contender_id, value: 100 + 50 * at })),
      },
      ...more,
    },
  );
}

describe('a study that sweeps', () => {
  it('holds to the last speed that is as true as the first, and gains its time', () => {
    const { sweep, speed } = evaluate(speeds());
    expect(sweep).toMatchObject({ setting: 'speed_outer_wall_mm_s', holds_to: 'S2' });
    expect(sweep?.limited_by).toMatchObject([{ figure: 'accuracy_mm', why: 'lost' }]);
    expect(sweep?.gain?.estimate).toBeCloseTo(0.5, 2);
    expect(sweep?.gain).toEqual(speed.S2?.time_index);
    // Success is there, described: no smallest difference is stated of it.
    expect(sweep?.figures.success).toMatchObject({ delta: null, holds_to: null });
  });

  it('is none with any other intent', () => {
    expect(evaluate(speeds({ intent: 'machines' })).sweep).toBeNull();
    expect(evaluate(speeds({ sweep: null })).sweep).toBeNull();
  });

  it('has no gain while times are compared with another step', () => {
    const found = evaluate(speeds(), { reference: 'S3' }).sweep;
    expect(found).toMatchObject({ reference: 'S1', holds_to: 'S2', gain: null });
    expect(found?.notes).toContain('gain: not known of the step that holds');
  });
});

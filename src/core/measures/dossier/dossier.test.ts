import { describe, expect, it } from 'vitest';
import { print, smallStudy, TWO_SIDES } from '../../../../tests/support/small-study';
import { evaluate } from '../../answers/results';
import { stateOf } from '.';

type Given = Parameters<typeof smallStudy>[0];

const study = (more: Given) => smallStudy({ ...TWO_SIDES, prints: [print('r', 'R')], ...more });

describe('set-up', () => {
  it('sums what is known, and says what is not', () => {
    const step = (number: number, more: object) => ({
      machine_id: 'mr',
      step: number,
      kind: 'assemble',
      what: 'frame',
      ...more,
    });
    const { setup } = evaluate(
      study({
        setup_steps: [
          step(1, { minutes: 30, hands_s: 600, snag: 2 }),
          step(2, { minutes: 12.5, snag: 1 }),
          step(3, { snag: 4 }),
        ],
      }),
    );
    expect(setup?.mr).toMatchObject({ minutes: 42.5, hands_min: 10, steps: 3, snags: 2 });
    expect(setup?.mr?.notes).toEqual([
      'minutes of steps not known: 1',
      'hands of steps not known: 2',
    ]);
    expect(setup?.mc).toMatchObject({ minutes: null, hands_min: null, steps: 0, checks: [] });
  });

  it('tells values inside their limits, which are inclusive', () => {
    const at = (value: number | null, lower: number | null, upper: number | null) =>
      stateOf({ value, lower, upper });
    expect([at(0.2, null, 0.2), at(0.1, 0.1, 0.2)]).toEqual(['inside', 'inside']);
    expect([at(0.3, null, 0.2), at(0.05, 0.1, null)]).toEqual(['outside', 'outside']);
    expect([at(null, 0, 1), at(3, null, null)]).toEqual([null, null]);
    // 0.1 + 0.2 is 0.3 here.
    expect(at(0.1 + 0.2, null, 0.3)).toBe('inside');
  });

  it('has the median of heating by what and from where to where', () => {
    const heat = (seconds: number, to_c: number) => ({
      machine_id: 'mr',
      what: 'bed',
      from_c: 20,
      to_c,
      seconds,
    });
    const { setup } = evaluate(study({ heat_ups: [heat(90, 60), heat(300, 100), heat(110, 60)] }));
    expect(setup?.mr?.heat_up).toEqual([
      { what: 'bed', from_c: 20, to_c: 60, n: 2, seconds: 100 },
      { what: 'bed', from_c: 20, to_c: 100, n: 1, seconds: 300 },
    ]);
  });
});

describe('trials', () => {
  it('count outcomes, with the share as promised and the delay of those that reacted', () => {
    const trial = (id: number, outcome: string, delay_s?: number) => ({
      trial_id: `t${id}`,
      machine_id: 'mr',
      feature: 'runout-sensor',
      provoked: 'cut',
      outcome,
      delay_s,
    });
    const { trials } = evaluate(
      study({
        trials: [
          trial(1, 'as-promised', 2),
          trial(2, 'late', 9),
          trial(3, 'partly'),
          trial(4, 'nothing', 100),
          trial(5, 'false-alarm'),
        ],
      }),
    );
    expect(trials?.mr?.['runout-sensor']).toMatchObject({
      trials: 5,
      as_promised: 1,
      late: 1,
      partly: 1,
      nothing: 1,
      false_alarm: 1,
      delay_s: 5.5,
    });
    // Clopper–Pearson of 1 in 5, from tables.
    expect(trials?.mr?.['runout-sensor']?.share.estimate).toBeCloseTo(0.2, 12);
    expect(trials?.mr?.['runout-sensor']?.share.low).toBeCloseTo(0.00505, 5);
    expect(trials?.mr?.['runout-sensor']?.share.high).toBeCloseTo(0.71642, 5);
    expect(trials?.mc).toEqual({});
  });
});

describe('marks', () => {
  it('are means of the values given; words alone are no value', () => {
    const mark = (aspect: string, value?: number) => ({
      machine_id: 'mr',
      aspect,
      sign: 'plus',
      text: 'words',
      value,
    });
    const { marks } = evaluate(
      study({ marks: [mark('screen', 4), mark('screen', 7), mark('screen'), mark('parts')] }),
    );
    expect(marks?.mr?.screen).toMatchObject({ n: 2, value: 5.5 });
    expect(marks?.mr?.parts).toMatchObject({ n: 0, value: null });
  });
});

describe('ability', () => {
  const given: Given = {
    materials: [
      { material_id: 'pla', type: 'PLA' },
      { material_id: 'petg', type: 'PETG' },
    ],
    prints: [
      print('1', 'R'),
      print('2', 'R', { outcome: 'failed' }),
      print('3', 'R', { material_id: 'petg', outcome: 'aborted' }),
      print('4', 'R', { material_id: 'petg' }),
    ],
    incidents: [
      {
        incident_id: 'i',
        machine_id: 'mr',
        print_id: '3',
        mode: 'storage-error',
        cause: 'operator',
      },
    ],
    specimens: [
      { specimen_id: 's1', print_id: '1' },
      { specimen_id: 's4', print_id: '4' },
    ],
    zones: ['front', 'back'].map((zone_id) => ({ artefact_id: 'part', zone_id, name: zone_id })),
    inspections: [
      ...['front', 'back'].map((zone_id) => ({ specimen_id: 's1', zone_id, inspector: 'KM' })),
      { specimen_id: 's1', zone_id: 'front', inspector: 'TS' },
      { specimen_id: 's4', zone_id: 'front', inspector: 'KM' },
    ],
    findings: [
      ['KM', 'ringing', 2],
      ['TS', 'blobs', 2],
    ].map(([inspector, defect, grade]) => ({
      specimen_id: 's1',
      zone_id: 'front',
      inspector,
      defect,
      grade,
    })),
  };

  it('is what prints of a material came to, without what only the operator spoilt', () => {
    const { ability } = evaluate(study(given));
    expect(ability.mr?.PLA).toMatchObject({ prints: 2, good: 1, success: { estimate: 0.5 } });
    expect(ability.mr?.PETG).toMatchObject({ prints: 1, good: 1, worst: null, surface: 100 });
    expect(ability.mr?.PETG?.notes).toEqual(['spoilt by the operator, left out: 1']);
    expect(ability.mc).toEqual({});
  });

  it('names the worst defect: the mean over inspectors and zones, of equals the first by name', () => {
    // Each found by one of two inspectors in one of two zones: 2/2/2.
    const { ability } = evaluate(study(given));
    expect(ability.mr?.PLA?.worst).toEqual({ defect: 'blobs', grade: 0.5 });
  });
});

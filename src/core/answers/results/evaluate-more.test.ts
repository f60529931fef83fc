import { describe, expect, it } from 'vitest';
import { print, smallStudy, TWO_SIDES } from '../../../../tests/support/small-study';
import { evaluate } from './evaluate';

const hours = (id: string, h: number, more = {}) =>
  print(id, 'C', {
    heat_s: 0,
    print_s: h * 3600,
    started_at: `2026-03-${id.slice(1)}T08:00:00Z`,
    ...more,
  });

const incident = (incident_id: string, print_id: string | null, more = {}) => ({
  incident_id,
  machine_id: 'mc',
  print_id,
  mode: 'clogged',
  cause: 'machine',
  ...more,
});

describe('survival between incidents', () => {
  const study = smallStudy({
    ...TWO_SIDES,
    prints: [
      hours('p01', 5),
      hours('p02', 10, { repeat: 2, outcome: 'failed', filament_g: 30 }),
      hours('p03', 10, { repeat: 3 }),
      hours('p04', 7, { repeat: 4 }),
    ],
    incidents: [
      incident('i1', 'p01'),
      incident('i2', 'p02', { at: '2026-03-02T10:00:00Z', downtime_s: 60 }),
      incident('i3', 'p02', { mode: 'warped', at: '2026-03-02T09:00:00Z' }),
      incident('i4', null, { at: '2026-03-03T09:00:00Z', mode: 'other' }),
      incident('i5', 'p04', { cause: 'operator' }),
    ],
  });
  const { survival, modes } = evaluate(study);

  it('is Kaplan and Meier’s estimate over the gaps', () => {
    // Gaps 5, 10 and 10 h (two incidents of one print stand at one place), 7 h without an end.
    const rows = survival?.['machine:mc'];
    expect(rows).toHaveLength(2);
    expect(rows?.[0]).toMatchObject({ t_h: 5, at_risk: 4, events: 1, s: 0.75, high: 1 });
    // Greenwood: 1/(4·3); 0.75/exp(1.959964·√0.083333).
    expect(rows?.[0]?.low).toBeCloseTo(0.4259293, 5);
    expect(rows?.[1]).toEqual({ t_h: 10, at_risk: 2, events: 2, s: 0, low: null, high: null });
    expect(survival?.['machine:mr']).toEqual([]);
  });

  it('modes are counted, what was lost is booked to the print’s first incident', () => {
    expect(modes?.C?.map((row) => [row.mode, row.count, row.lost_g, row.operator_count])).toEqual([
      ['clogged', 3, 0, 1],
      ['warped', 1, 30, 0],
    ]);
  });
});

describe('plate and squareness', () => {
  const dimension = (dimension_id: string, kind: string, nominal_mm: number) => ({
    artefact_id: 'part',
    dimension_id,
    name: dimension_id,
    axis: 'none',
    kind,
    nominal_mm,
  });
  const places = [
    [-50, -50],
    [50, -50],
    [-50, 50],
    [50, 50],
    [0, 20],
  ];
  const prints = [print('p1', 'C'), print('p2', 'C', { repeat: 2 })];
  const specimens = prints.flatMap(({ print_id }) =>
    places.map(([x, y], at) => ({
      specimen_id: `${String(print_id)}-${at}`,
      print_id,
      plate_x_mm: x,
      plate_y_mm: y,
    })),
  );
  // Half a degree: d² = a² + b² ± 2ab·sin 0.5°.
  const shear = 2 * 100 * 80 * Math.sin(Math.PI / 360);
  const sizes = {
    a: 100,
    b: 80,
    d1: Math.sqrt(100 ** 2 + 80 ** 2 + shear),
    d2: Math.sqrt(100 ** 2 + 80 ** 2 - shear),
  };
  const read = (specimen_id: string, dimension_id: string, value_mm: number) => ({
    specimen_id,
    dimension_id,
    trial: 1,
    value_mm,
  });
  const study = smallStudy({
    ...TWO_SIDES,
    dimensions: [
      dimension('z', 'height', 4),
      dimension('a', 'external', 100),
      dimension('b', 'external', 80),
      dimension('d1', 'diagonal', 128),
      dimension('d2', 'diagonal', 128),
    ],
    squares: [
      {
        artefact_id: 'part',
        square_id: 'base',
        side_a: 'a',
        side_b: 'b',
        diagonal_1: 'd1',
        diagonal_2: 'd2',
      },
    ],
    prints,
    specimens,
    readings: [
      // 0.2 µm per mm along x, −0.1 along y, and another height for each print.
      ...specimens.map(({ specimen_id, print_id, plate_x_mm, plate_y_mm }) =>
        read(
          specimen_id,
          'z',
          4 +
            (print_id === 'p1' ? 0.05 : -0.02) +
            0.0002 * Number(plate_x_mm) -
            0.0001 * Number(plate_y_mm),
        ),
      ),
      ...Object.entries(sizes).map(([id, value]) => read('p1-0', id, value)),
    ],
  });
  const { plate, squareness } = evaluate(study);

  it('finds the gradients beside the prints’ own heights', () => {
    const fit = plate?.C?.['part/z'];
    expect(fit).toMatchObject({ n: 10, prints: 2, trend_p: 0 });
    expect(fit?.gradient_x_um_per_100mm).toBeCloseTo(20, 6);
    expect(fit?.gradient_y_um_per_100mm).toBeCloseTo(-10, 6);
    // From 4.05 + 0.01 + 0.005 down to 3.98 − 0.015.
    expect(fit?.range_mm).toBeCloseTo(0.1, 9);
    expect(plate?.R).toEqual({});
  });

  it('finds the angle from the diagonals', () => {
    const own = squareness?.C?.['part/base'];
    expect(own?.specimens).toBe(1);
    expect(own?.angle_deg.estimate).toBeCloseTo(0.5, 9);
    expect(own?.mm_per_100mm).toBeCloseTo(0.8726868, 6);
    expect(squareness?.R?.['part/base']).toMatchObject({ specimens: 0, mm_per_100mm: null });
  });
});

describe('ladders, functions, waste, noise and claims', () => {
  const result = (specimen_id: string, step: number, word: string) => ({
    specimen_id,
    ladder_id: 'gap',
    step,
    result: word,
  });
  const study = smallStudy({
    ...TWO_SIDES,
    ladders: [
      { artefact_id: 'part', ladder_id: 'gap', name: 'Gaps', quantity: 'clearance', unit: 'mm' },
    ],
    ladder_steps: [0.6, 0.4, 0.3, 0.2].map((value, at) => ({
      artefact_id: 'part',
      ladder_id: 'gap',
      step: at + 1,
      value,
    })),
    prints: [
      print('p1', 'C', { filament_g: 40, waste_g: 4, energy_wh: 100 }),
      print('p2', 'C', { repeat: 2, filament_g: 60, waste_g: 6 }),
      print('p3', 'C', { repeat: 3, energy_wh: 50, filament_g: 9 }),
    ],
    specimens: [
      { specimen_id: 's1', print_id: 'p1' },
      { specimen_id: 's2', print_id: 'p2' },
      { specimen_id: 's3', print_id: 'p3' },
    ],
    ladder_results: [
      result('s1', 1, 'clear'),
      result('s1', 3, 'effort'),
      result('s1', 4, 'broken'),
      result('s2', 1, 'clear'),
      result('s2', 3, 'clear'),
      result('s2', 4, 'effort'),
    ],
    function_results: [
      { specimen_id: 's1', check: 'turns', result: 'works' },
      { specimen_id: 's2', check: 'turns', result: 'works-with-effort' },
    ],
    noise: [
      { machine_id: 'mc', state: 'idle', distance_m: 2, db_a: 50 },
      { machine_id: 'mc', state: 'printing', distance_m: 1, db_a: 50 },
      { machine_id: 'mc', state: 'printing', distance_m: 0.5, db_a: 66.0206 },
    ],
    claims: [{ claim_id: 'k', machine_id: 'mc', statement: 'fast', finding: 'partly' }],
  });
  const results = evaluate(study);

  it('the limit is the hardest step that half pass, as they do every easier one', () => {
    const own = results.ladders?.C?.['part/gap'];
    expect(own).toMatchObject({ limit: 0.3, limit_with_effort: 0.2, unit: 'mm', specimens: 2 });
    expect(own?.by_step[1]).toEqual({
      step: 2,
      value: 0.4,
      clear: 0,
      effort: 0,
      fail: 0,
      broken: 0,
      untested: 2,
    });
    expect(own?.by_step[3]).toMatchObject({ effort: 1, broken: 1, untested: 0 });
  });

  it('a specimen that broke on a step was tried on it and did not pass', () => {
    // Of two that were tried on the second step one passes and one breaks: half pass. Two more break.
    const tried = (broken: number) =>
      smallStudy({
        ...TWO_SIDES,
        ladders: study.tables.ladders,
        ladder_steps: study.tables.ladder_steps,
        prints: [print('p1', 'C')],
        specimens: Array.from({ length: 1 + broken }, (_, at) => ({
          specimen_id: `s${at}`,
          print_id: 'p1',
          copy: at + 1,
        })),
        ladder_results: [
          result('s0', 1, 'clear'),
          result('s0', 2, 'clear'),
          ...Array.from({ length: broken }, (_, at) => result(`s${at + 1}`, 2, 'broken')),
        ],
      });
    expect(evaluate(tried(1)).ladders?.C?.['part/gap']?.limit).toBe(0.4);
    expect(evaluate(tried(2)).ladders?.C?.['part/gap']?.limit).toBe(0.6);
  });

  it('functions, claims', () => {
    expect(results.functions?.C).toEqual({
      'part/turns': { works: 1, works_with_effort: 1, fails: 0 },
    });
    expect(results.claims).toEqual([{ claim_id: 'k', machine_id: 'mc', finding: 'partly' }]);
  });

  it('waste over prints that know both masses', () => {
    expect(results.waste.C).toMatchObject({
      prints: 2,
      filament_g: 100,
      waste_g: 10,
      share: 0.1,
      energy_wh: 150,
    });
    expect(results.waste.R).toMatchObject({ prints: 0, share: null, energy_wh: null });
  });

  it('noise at 1 m, of several distances the energy mean', () => {
    expect(results.noise?.mc?.idle?.at_1m_db).toBeCloseTo(56.0206, 4);
    // 50 dB and 66.0206 − 6.0206 = 60 dB: 10·lg((10⁵ + 10⁶)/2) = 57.4036.
    expect(results.noise?.mc?.printing?.at_1m_db).toBeCloseTo(57.4036, 4);
  });

  it('sections whose tables are absent are null', () => {
    const bare = evaluate(smallStudy({ ...TWO_SIDES, prints: [print('p', 'C')] }));
    expect(bare).toMatchObject({
      plate: null,
      squareness: null,
      ladders: null,
      functions: null,
      modes: null,
      survival: null,
      noise: null,
      claims: null,
    });
  });
});

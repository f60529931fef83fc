import { describe, expect, it } from 'vitest';
import { print, smallStudy, TWO_SIDES } from '../../../../tests/support/small-study';
import { evaluate } from '../../answers/results';

/**
 * The gauge study of the Automotive Industry Action Group's Measurement Systems Analysis: ten parts,
 * three appraisers, three trials. Its sizes are deviations; 10 is added, which changes no variance.
 */
const PUBLISHED: Record<string, number[][]> = {
  A: [
    [0.29, -0.56, 1.34, 0.47, -0.8, 0.02, 0.59, -0.31, 2.26, -1.36],
    [0.41, -0.68, 1.17, 0.5, -0.92, -0.11, 0.75, -0.2, 1.99, -1.25],
    [0.64, -0.58, 1.27, 0.64, -0.84, -0.21, 0.66, -0.17, 2.01, -1.31],
  ],
  B: [
    [0.08, -0.47, 1.19, 0.01, -0.56, -0.2, 0.47, -0.63, 1.8, -1.68],
    [0.25, -1.22, 0.94, 1.03, -1.2, 0.22, 0.55, 0.08, 2.12, -1.62],
    [0.07, -0.68, 1.34, 0.2, -1.28, 0.06, 0.83, -0.34, 2.19, -1.5],
  ],
  C: [
    [0.04, -1.38, 0.88, 0.14, -1.46, -0.29, 0.02, -0.46, 1.77, -1.49],
    [-0.11, -1.13, 1.09, 0.2, -1.07, -0.67, 0.01, -0.56, 1.45, -1.77],
    [-0.15, -0.96, 0.67, 0.11, -1.45, -0.49, 0.21, -0.49, 1.87, -2.16],
  ],
};

function studyOf(data: Record<string, number[][]>, more: Record<string, unknown>[] = []) {
  const parts = data.A?.[0]?.length ?? 0;
  const readings = Object.entries(data).flatMap(([operator, trials]) =>
    trials.flatMap((values, trial) =>
      values.map((value, part) => ({
        specimen_id: `s${part}`,
        dimension_id: 'x',
        trial: trial + 1,
        value_mm: 10 + value,
        instrument_id: 'caliper',
        operator,
      })),
    ),
  );
  return smallStudy({
    ...TWO_SIDES,
    dimensions: [
      {
        artefact_id: 'part',
        dimension_id: 'x',
        name: 'x',
        axis: 'x',
        kind: 'external',
        nominal_mm: 10,
      },
    ],
    instruments: [{ instrument_id: 'caliper', name: 'Caliper' }],
    prints: [print('p', 'R')],
    specimens: Array.from({ length: parts }, (_, at) => ({
      specimen_id: `s${at}`,
      print_id: 'p',
    })),
    readings: [...readings, ...more],
  });
}

describe('which readings make a gauge study', () => {
  /** Readings of parts by people, so many times each. */
  const read = (who: Record<string, number[]>): Record<string, unknown>[] =>
    Object.entries(who).flatMap(([operator, times]) =>
      times.flatMap((trials, part) =>
        Array.from({ length: trials }, (_, trial) => ({
          specimen_id: `s${part}`,
          dimension_id: 'x',
          instrument_id: 'caliper',
          operator,
          trial: trial + 1,
          value_mm: 10 + part + trial / 100 + operator.length / 1000,
        })),
      ),
    );
  const blockOf = (who: Record<string, number[]>) => {
    const study = studyOf({ A: [[0, 0, 0, 0, 0, 0]] });
    study.tables.readings = smallStudy({ readings: read(who) }).tables.readings;
    const found = evaluate(study).gauge?.caliper?.x;
    return found ? `${found.parts}×${found.operators}×${found.trials}` : null;
  };

  it.each([
    ['everybody read everything alike', { A: [2, 2, 2], B: [2, 2, 2] }, '3×2×2'],
    ['one part was read by one person only', { A: [2, 2, 2], B: [2, 2] }, '2×2×2'],
    ['a part was read more often than the others', { A: [2, 2, 3], B: [2, 2, 3] }, '2×2×2'],
    [
      'as many parts twice as three times: more readings count',
      { A: [2, 2, 3, 3], B: [2, 2, 3, 3] },
      '2×2×3',
    ],
    ['a third person read little', { A: [2, 2, 2, 2], B: [2, 2, 2, 2], CC: [2, 2] }, '4×2×2'],
    ['a third person read as much', { A: [2, 2, 2], B: [2, 2, 2], CC: [2, 2, 2] }, '3×3×2'],
    ['nobody read anything twice', { A: [1, 1, 1], B: [1, 1, 1] }, null],
    ['one person alone read', { A: [2, 2, 2] }, null],
    ['one part alone was read', { A: [2], B: [2] }, null],
  ])('%s', (_, who, expected) => {
    expect(blockOf(who as unknown as Record<string, number[]>)).toBe(expected);
  });
});

describe('gauge study', () => {
  const found = evaluate(studyOf(PUBLISHED)).gauge?.caliper?.x;

  it('agrees with the published analysis of variance', () => {
    expect(found).toMatchObject({ parts: 10, operators: 3, trials: 3, interaction_pooled: true });
    expect(found?.ev_mm).toBeCloseTo(0.199933, 5);
    expect(found?.av_mm).toBeCloseTo(0.226838, 5);
    expect(found?.grr_mm).toBeCloseTo(0.302373, 5);
    expect(found?.pv_mm).toBeCloseTo(1.042327, 5);
    expect(found?.grr_pct).toBeCloseTo(27.9, 1);
    expect(found?.pv_pct).toBeCloseTo(96.0, 1);
    expect(found?.ndc).toBe(4);
    expect(found?.interaction_mm).toBe(0);
  });

  it('leaves parts out that not everybody read equally often', () => {
    const reduced = studyOf(PUBLISHED);
    reduced.tables.readings.splice(0, 1);
    expect(evaluate(reduced).gauge?.caliper?.x).toMatchObject({ parts: 9, operators: 3 });
  });

  it('an interaction that is there is kept apart, from hand-worked squares', () => {
    // Two parts, two operators, two trials: means 1 3 / 3 1, each ±0.1.
    const one = studyOf({
      A: [
        [0.9, 2.9],
        [1.1, 3.1],
      ],
      B: [
        [2.9, 0.9],
        [3.1, 1.1],
      ],
    });
    const gauge = evaluate(one).gauge?.caliper?.x;
    // MS of the interaction 8/1, of the error 8·0.01/4 = 0.02.
    expect(gauge?.interaction_pooled).toBe(false);
    expect(gauge?.ev_mm).toBeCloseTo(Math.sqrt(0.02), 9);
    expect(gauge?.interaction_mm).toBeCloseTo(Math.sqrt((8 - 0.02) / 2), 9);
    expect(gauge).toMatchObject({ av_mm: 0, pv_mm: 0, ndc: 0 });
  });

  it('without two operators there is none', () => {
    expect(evaluate(studyOf({ A: PUBLISHED.A ?? [] })).gauge).toEqual({});
  });
});

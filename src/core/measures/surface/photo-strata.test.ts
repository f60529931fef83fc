import { describe, expect, it } from 'vitest';
import { print, smallStudy, TWO_SIDES } from '../../../../tests/support/small-study';
import { evaluate } from '../../answers/results';

const measure = (id: string, value: number, feature: string | null) => ({
  specimen_id: `s-${id}`,
  path: `${id}.jpg`,
  measure_id: `${id}-${feature ?? 'all'}`,
  measure: 'ringing',
  x: 0,
  y: 0,
  w: 10,
  h: 10,
  unit: 'mm',
  value,
  found: 'true',
  feature,
  value_key: 'amplitude',
});

describe('a figure on photos', () => {
  const study = () =>
    smallStudy(
      {
        ...TWO_SIDES,
        materials: [
          { material_id: 'pla', type: 'PLA' },
          { material_id: 'petg', type: 'PETG' },
        ],
        prints: [
          print('1', 'C'),
          print('2', 'C'),
          print('3', 'C', { material_id: 'petg' }),
          print('4', 'C', { material_id: 'petg' }),
        ],
        specimens: ['1', '2', '3', '4'].map((id) => ({ specimen_id: `s-${id}`, print_id: id })),
        photos: ['1', '2', '3', '4'].map((id) => ({
          specimen_id: `s-${id}`,
          path: `${id}.jpg`,
          light: 'raking-left',
        })),
        photo_measures: [
          ...['1', '2'].flatMap((id, at) => [
            measure(id, 0.1 + 0.02 * at, 'x'),
            measure(id, 0.3, 'y'),
          ]),
          measure('3', 0.5, 'x'),
          measure('4', 0.52, 'x'),
          measure('1', 0.2, null),
        ],
      },
      { smallest_difference: { 'photo:part/ringing/raking-left/x': 0.01 } },
    );

  it('is of a feature apart, by the one-side rule over strata', () => {
    const found = evaluate(study()).photo?.C ?? {};
    expect(Object.keys(found).sort()).toEqual([
      'part/ringing/raking-left',
      'part/ringing/raking-left/x',
      'part/ringing/raking-left/y',
    ]);
    const along = found['part/ringing/raking-left/x'];
    // The mean of the stratum means 0.11 and 0.51; the plastics are no scatter: s² of both is 0.0002.
    expect(along?.figure.estimate).toBeCloseTo(0.31, 12);
    const half = 4.302652729911275 * Math.sqrt((0.0002 / 2 + 0.0002 / 2) / 4);
    expect(along?.figure.high).toBeCloseTo(0.31 + half, 9);
    expect(found['part/ringing/raking-left']?.specimens).toBe(1);
  });

  it('of a feature is a criterion of its own', () => {
    const { criteria } = evaluate(study());
    expect(criteria['photo:part/ringing/raking-left/x']?.C?.value).toBeCloseTo(0.31, 12);
  });
});

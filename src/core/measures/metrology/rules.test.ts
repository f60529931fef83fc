import { describe, expect, it } from 'vitest';
import { print, smallStudy, TWO_SIDES } from '../../../../tests/support/small-study';
import { evaluate } from '../../answers/results';
import { fitAxis, type AxisPoint } from './axis-fit';
import { doubtReading } from './index';
import { toleranceClass } from './tolerance-class';

const dimension = (dimension_id: string, more: object = {}) => ({
  artefact_id: 'part',
  dimension_id,
  name: dimension_id,
  axis: 'x',
  kind: 'external',
  nominal_mm: 20,
  ...more,
});

const reading = (
  specimen_id: string,
  dimension_id: string,
  value_mm: number,
  more: object = {},
) => ({
  specimen_id,
  dimension_id,
  trial: 1,
  value_mm,
  ...more,
});

describe('the fit of an axis', () => {
  const study = (dimensions: object[], values: Record<string, number>) =>
    smallStudy({
      ...TWO_SIDES,
      dimensions: dimensions as Record<string, unknown>[],
      prints: [print('p1', 'C')],
      specimens: [{ specimen_id: 's1', print_id: 'p1' }],
      readings: Object.entries(values).map(([id, value]) => reading('s1', id, value)),
    });

  it('takes the dimensions of its axis only, and no diagonals', () => {
    const { accuracy } = evaluate(
      study(
        [
          dimension('a'),
          dimension('b', { nominal_mm: 40 }),
          dimension('c', { nominal_mm: 60, kind: 'internal' }),
          dimension('d', { nominal_mm: 70, kind: 'diagonal' }),
          dimension('y', { nominal_mm: 30, axis: 'y' }),
        ],
        { a: 20.1, b: 40.1, c: 59.9, d: 75, y: 33 },
      ),
    );
    const fit = accuracy?.C?.fit.x;
    expect(fit?.n).toBe(3);
    // Walls 0.1 too fat and nothing else: the diagonal's 5 mm say nothing here.
    expect(fit?.offset_mm?.estimate).toBeCloseTo(0.1, 9);
    expect(fit?.scale?.estimate).toBeCloseTo(1, 9);
    expect(accuracy?.C?.fit.y?.n).toBe(1);
  });

  it('has its interval the right way round, and as wide as t says', () => {
    // e = δ on four externals of one size each, noise ±s: one term alone is the mean with t(3).
    const points = [0.1, 0.12, 0.08, 0.1].map((deviation_mm, at): AxisPoint => ({
      nominal_mm: 1e-9 * (at + 1),
      kind: 'external',
      deviation_mm,
    }));
    const fit = fitAxis(points, 0.05);
    const { low, estimate, high } = fit.advice?.wall_compensation_mm ?? {};
    expect(estimate).toBeCloseTo(-0.05, 6);
    // sd 0.016330, /√4, t(0.975; 3) = 3.18245: ±0.025984 on δ, half of it on a wall.
    expect((high ?? 0) - (estimate ?? 0)).toBeCloseTo(0.012992, 5);
    expect((estimate ?? 0) - (low ?? 0)).toBeCloseTo(0.012992, 5);
  });

  it('is sure where nothing is left over, and corrects nothing where nothing is off', () => {
    const exact = [20, 40, 60].map((nominal_mm): AxisPoint => ({
      nominal_mm,
      kind: 'external',
      deviation_mm: 0.1,
    }));
    expect(fitAxis(exact, 0.05).advice?.terms).toContain('offset');
    expect(fitAxis(exact, 0.05).advice?.wall_compensation_mm?.estimate).toBeCloseTo(-0.05, 9);
    const none = exact.map((point) => ({ ...point, deviation_mm: 0 }));
    expect(fitAxis(none, 0.05).advice?.terms).toEqual([]);
  });
});

describe('a doubtful reading', () => {
  it.each([
    [20, 22, null],
    [20, 22.001, 'nominal'],
    [20, 17.9, 'nominal'],
    [100, 102, null],
    [100, 102.01, 'nominal'],
    [5, 5.5, null],
    [5, 5.51, 'nominal'],
  ])('of %d mm that reads %d', (nominal, value, from) => {
    expect(doubtReading(value, nominal)?.from ?? null).toBe(from);
  });

  it('is one that is far from earlier readings of the place, told with how far', () => {
    expect(doubtReading(20.1, 20, [20])).toBeNull();
    expect(doubtReading(20.11, 20, [20])).toEqual({
      from: 'earlier',
      far_mm: expect.closeTo(0.11, 9) as number,
    });
    expect(doubtReading(19.8, 20, [19.9, 20])).toMatchObject({
      far_mm: expect.closeTo(-0.15, 9) as number,
    });
  });
});

describe('which dimensions drive a difference', () => {
  it('the largest share first, whatever its sign', () => {
    const sides = { R: [20.1, 20.02, 20.3], C: [20.02, 20.2, 20.31] };
    const { drivers } = evaluate(
      smallStudy({
        ...TWO_SIDES,
        dimensions: ['a', 'b', 'c'].map((id) => dimension(id)),
        prints: [print('pR', 'R'), print('pC', 'C')],
        specimens: [
          { specimen_id: 'sR', print_id: 'pR' },
          { specimen_id: 'sC', print_id: 'pC' },
        ],
        readings: Object.entries(sides).flatMap(([side, values]) =>
          values.map((value, at) => reading(`s${side}`, 'abc'[at] ?? '', value)),
        ),
      }),
    );
    // a −0.08/3, b +0.18/3, c +0.01/3.
    expect(drivers?.C?.map((one) => one.dimension_id)).toEqual(['b', 'a', 'c']);
    expect(drivers?.C?.[0]?.share_mm).toBeCloseTo(0.06, 9);
  });
});

describe('what an instrument repeats', () => {
  it('is seen from places that it read twice, not from those that it read once', () => {
    const { instruments } = evaluate(
      smallStudy({
        ...TWO_SIDES,
        dimensions: [dimension('a'), dimension('b')],
        instruments: [{ instrument_id: 'caliper', name: 'Caliper' }],
        prints: [print('p1', 'C')],
        specimens: [{ specimen_id: 's1', print_id: 'p1' }],
        readings: [
          reading('s1', 'a', 20, { instrument_id: 'caliper' }),
          reading('s1', 'a', 20.02, { instrument_id: 'caliper', trial: 2 }),
          reading('s1', 'b', 21, { instrument_id: 'caliper' }),
        ],
      }),
    );
    expect(instruments?.caliper).toMatchObject({ readings: 3, repeated: 1 });
    expect(instruments?.caliper?.repeatability_mm).toBeCloseTo(0.02 / Math.SQRT2, 9);
  });
});

describe('a plate', () => {
  const placed = (count: number) =>
    evaluate(
      smallStudy({
        ...TWO_SIDES,
        dimensions: [dimension('a')],
        prints: [print('p1', 'C')],
        specimens: Array.from({ length: count }, (_, at) => ({
          specimen_id: `s${at}`,
          print_id: 'p1',
          copy: at + 1,
          plate_x_mm: 10 * at,
          plate_y_mm: at % 2,
        })),
        readings: Array.from({ length: count }, (_, at) => reading(`s${at}`, 'a', 20 + at / 100)),
      }),
    ).plate?.C;

  it('needs four places', () => {
    expect(Object.keys(placed(3) ?? {})).toEqual([]);
    expect(placed(4)?.['part/a']).toMatchObject({ n: 4 });
    expect(placed(4)?.['part/a']?.gradient_x_um_per_100mm).toBeCloseTo(100, 6);
  });
});

describe('the class of tolerance', () => {
  it('goes by the largest of few and by the 95th percentile of many', () => {
    // i of 20 mm is 0.45·∛√(18·30) + 0.001·√540 = 1.3074 µm: 2·1000·e/i.
    const of = (deviations: readonly number[]) =>
      toleranceClass(deviations.map((deviation_mm) => ({ nominal_mm: 20, deviation_mm })));
    const few = of([...Array<number>(18).fill(0.01), 0.1]);
    expect(few.it_basis).toBe('max');
    expect(few.it_value).toBeCloseTo(200 / 1.3074, 1);
    // Of 21 values the 95th percentile (type 7) is the 20th: one outlier is not it.
    const many = of([...Array<number>(20).fill(0.01), 0.1]);
    expect(many.it_basis).toBe('p95');
    expect(many.it_value).toBeCloseTo(20 / 1.3074, 2);
  });
});

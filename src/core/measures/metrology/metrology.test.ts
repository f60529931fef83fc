import { describe, expect, it } from 'vitest';
import { smallStudy, print, TWO_SIDES } from '../../../../tests/support/small-study';
import { indexStudy } from '../../model/study';
import { accuracyOfAll } from './accuracy';
import { fitAxis, type AxisPoint } from './axis-fit';
import { measure } from './cells';
import { doubtReading } from './doubt';
import { judgeTolerance } from './tolerance';
import { sizeBand } from './size-bands';
import { toleranceClass, toleranceFactor } from './tolerance-class';

describe('tolerance factor, against the printed IT7 and IT11 of ISO 286-1', () => {
  it.each([
    [24, 16, 21],
    [40, 16, 25],
    [60, 16, 30],
    [100, 16, 35],
    [150, 16, 40],
    [24, 100, 130],
    [150, 100, 250],
    [450, 100, 400],
  ])('nominal %d mm, %d·i is about %d µm', (nominal, multiple, printed) => {
    const value = multiple * (toleranceFactor(nominal) ?? 0);
    // The standard rounds what the formula gives.
    expect(Math.abs(value / printed - 1)).toBeLessThan(0.03);
  });

  it('puts a nominal on a limit into the lower range, and knows none above 500 mm', () => {
    expect(toleranceFactor(30)).toBe(toleranceFactor(20));
    expect(toleranceFactor(30.001)).toBe(toleranceFactor(45));
    expect(toleranceFactor(0.4)).toBe(toleranceFactor(2));
    expect(toleranceFactor(500)).toBe(toleranceFactor(401));
    expect(toleranceFactor(500.1)).toBeNull();
  });

  it('goes by the maximum below 20 cells and by the 95th percentile from there on', () => {
    // At 24 mm i = 1.307 µm; 0.1 mm needs a zone of 200 µm, 153·i: IT12 holds 160·i.
    const cells = Array.from({ length: 19 }, () => ({ nominal_mm: 24, deviation_mm: 0.1 }));
    expect(toleranceClass(cells)).toMatchObject({ it_grade: 'IT12', it_basis: 'max' });
    const outlier = { nominal_mm: 24, deviation_mm: -1 };
    expect(toleranceClass([...cells, outlier])).toMatchObject({ it_basis: 'p95' });
    expect(toleranceClass([outlier])).toMatchObject({ it_grade: 'IT17', it_basis: 'max' });
    expect(toleranceClass([{ nominal_mm: 24, deviation_mm: 9 }]).it_grade).toBeNull();
  });
});

describe('ranges of size', () => {
  it('a nominal on a limit belongs to the lower one', () => {
    expect([10, 10.01, 30, 100, 100.1].map(sizeBand)).toEqual([
      'to-10',
      'to-30',
      'to-30',
      'to-100',
      'over-100',
    ]);
  });
});

describe('tolerance', () => {
  it('is inclusive, and undecided within twice the uncertainty of a limit', () => {
    expect(judgeTolerance(0.1, -0.1, 0.1, null)).toBe('inside');
    expect(judgeTolerance(0.1001, -0.1, 0.1, null)).toBe('outside');
    expect(judgeTolerance(0.08, -0.1, 0.1, 0.011)).toBe('undecided');
    expect(judgeTolerance(0.07, -0.1, 0.1, 0.011)).toBe('inside');
    expect(judgeTolerance(0.13, -0.1, 0.1, 0.011)).toBe('outside');
    expect(judgeTolerance(-5, null, 0.1, 0.011)).toBe('inside');
    expect(judgeTolerance(0, null, null, 0.011)).toBeNull();
  });
});

describe('fit along an axis', () => {
  const point = (nominal_mm: number, kind: AxisPoint['kind'], deviation_mm: number): AxisPoint => ({
    nominal_mm,
    kind,
    deviation_mm,
  });

  it('finds scale, walls and holes that are built in', () => {
    // 0.2 % large, walls 0.06 too fat, holes 0.1 smaller still.
    const made = (nominal: number, kind: AxisPoint['kind']) => {
      const inner = kind === 'hole' || kind === 'internal';
      return point(
        nominal,
        kind,
        0.002 * nominal + (inner ? -0.06 : 0.06) - (kind === 'hole' ? 0.1 : 0),
      );
    };
    const fit = fitAxis(
      [
        made(20, 'external'),
        made(80, 'external'),
        made(8, 'internal'),
        made(6, 'hole'),
        made(9, 'hole'),
      ],
      0.05,
    );
    expect(fit.scale?.estimate).toBeCloseTo(1.002, 10);
    expect(fit.offset_mm?.estimate).toBeCloseTo(0.06, 10);
    expect(fit.hole_offset_mm?.estimate).toBeCloseTo(-0.1, 10);
    expect(fit.residual_mae_mm).toBeCloseTo(0, 10);
    expect(fit.advice?.terms).toEqual(['scale', 'offset', 'hole_offset']);
    expect(fit.advice?.scale_to_enter?.estimate).toBeCloseTo(0.998004, 6);
    expect(fit.advice?.wall_compensation_mm?.estimate).toBeCloseTo(-0.03, 10);
    expect(fit.advice?.hole_compensation_mm?.estimate).toBeCloseTo(0.08, 10);
    expect(fit.advice?.hole_extra_mm?.estimate).toBeCloseTo(0.05, 10);
    expect(fit.advice?.mae_after_mm).toBeCloseTo(0, 10);
  });

  it('advises nothing where nothing is beyond the noise', () => {
    const noise = [0.01, -0.01, 0.011, -0.009, 0.008, -0.012];
    const fit = fitAxis(
      noise.map((deviation, at) =>
        point(10 + at * 10, at % 2 ? 'external' : 'internal', deviation * (at < 3 ? 1 : -1)),
      ),
      0.05,
    );
    expect(fit.advice).toMatchObject({
      terms: [],
      wall_compensation_mm: null,
      notes: ['nothing to correct beyond the noise'],
    });
    expect(fit.advice?.mae_after_mm).toBe(fit.advice?.mae_before_mm);
  });

  it('drops what is not beyond the noise and keeps what is', () => {
    const noise = [0.002, -0.001, -0.002, 0.001, 0.0015, -0.0015];
    const fit = fitAxis(
      noise.map((deviation, at) => point(10 + at * 7, 'external', 0.08 + deviation)),
      0.05,
    );
    expect(fit.advice?.terms).toEqual(['offset']);
    expect(fit.advice?.wall_compensation_mm?.estimate).toBeCloseTo(-0.04, 4);
    expect(fit.advice?.scale_to_enter).toBeNull();
  });

  it('needs more dimensions than terms, and kinds that can be told apart', () => {
    expect(fitAxis([point(1, 'external', 0), point(2, 'external', 0)], 0.05)).toMatchObject({
      n: 2,
      scale: null,
      advice: null,
    });
    const holes = [5, 6, 8, 10].map((size) => point(size, 'hole', -0.1));
    expect(fitAxis(holes, 0.05).notes[0]).toContain('cannot be told apart');
  });
});

describe('accuracy of a small study', () => {
  const dimension = (dimension_id: string, axis: string, kind: string, nominal_mm: number) => ({
    artefact_id: 'part',
    dimension_id,
    name: dimension_id,
    axis,
    kind,
    nominal_mm,
    lower_tol_mm: -0.1,
    upper_tol_mm: 0.1,
  });
  const reading = (
    specimen_id: string,
    dimension_id: string,
    trial: number,
    value_mm: number,
    more = {},
  ) => ({
    specimen_id,
    dimension_id,
    trial,
    value_mm,
    instrument_id: 'cal',
    operator: 'KM',
    ...more,
  });
  const study = smallStudy({
    ...TWO_SIDES,
    dimensions: [dimension('x', 'x', 'external', 20), dimension('h', 'none', 'hole', 6)],
    prints: [print('p1', 'R'), print('p2', 'R', { repeat: 2 })],
    specimens: [
      { specimen_id: 's1', print_id: 'p1' },
      { specimen_id: 's2', print_id: 'p2' },
    ],
    instruments: [
      {
        instrument_id: 'cal',
        name: 'Caliper',
        resolution_mm: 0.01,
        expanded_uncertainty_mm: 0.03,
        zero_mm: 0.01,
      },
    ],
    readings: [
      reading('s1', 'x', 1, 20.06),
      reading('s1', 'x', 2, 20.1),
      reading('s1', 'h', 1, 5.91),
      reading('s2', 'x', 1, 20.13),
      reading('s2', 'x', 2, 25, { superseded_at: '2026-03-02T10:00:00Z' }),
    ],
  });
  const index = indexStudy(study);
  const all = accuracyOfAll(index, measure(index), 0.05);
  const own = all.R;

  it('takes the zero off, leaves superseded readings out and averages to cells', () => {
    // s1/x: (20.05 + 20.09)/2 = 20.07; s1/h: 5.90; s2/x: 20.12.
    expect(own?.cells.map((cell) => [cell.specimen_id, cell.dimension_id, cell.n])).toEqual([
      ['s1', 'x', 2],
      ['s1', 'h', 1],
      ['s2', 'x', 1],
    ]);
    expect(own?.cells.map((cell) => Number(cell.deviation_mm.toFixed(10)))).toEqual([
      0.07, -0.1, 0.12,
    ]);
    expect(own).toMatchObject({ prints: 2, specimens: 2, dimensions: 2, readings: 4 });
  });

  it('averages to specimens and prints', () => {
    // Print 1: mae (0.07 + 0.10)/2 = 0.085, bias −0.015; print 2: 0.12.
    expect(own?.mae_mm.estimate).toBeCloseTo(0.1025, 10);
    expect(own?.bias_mm.estimate).toBeCloseTo(0.0525, 10);
    expect(own?.max_abs_mm).toBeCloseTo(0.12, 10);
    expect(own?.rmse_mm).toBeCloseTo(Math.sqrt((0.0049 + 0.01 + 0.0144) / 3), 10);
    expect(own?.by_kind.hole).toMatchObject({ n: 1 });
    expect(own?.by_axis.x.bias_mm).toBeCloseTo(0.095, 10);
    expect(own?.by_axis.z).toEqual({ n: 0, bias_mm: null, mae_mm: null });
    const bands = Object.values(own?.by_size ?? {});
    expect(bands.reduce((sum, band) => sum + band.n, 0)).toBe(own?.cells.length);
  });

  it('knows what its readings repeat and are worth', () => {
    // One group with two values 0.04 apart: s² = 0.0008.
    expect(own?.repeatability_mm).toBeCloseTo(0.0282843, 6);
    expect(own?.systematic_mm).toBe(0.03);
    // u² = 0.0008/2 + 0.015² for two readings, 0.0008 + 0.015² for one.
    expect(own?.cells[0]?.u_mm).toBeCloseTo(0.025, 10);
    expect(own?.cells[1]?.u_mm).toBeCloseTo(0.0320156, 6);
    expect(own?.tolerance).toEqual({ inside: 0, outside: 0, undecided: 3 });
  });

  it('shows a contender without readings as not known, with a reason', () => {
    expect(all.C).toMatchObject({
      prints: 0,
      rmse_mm: null,
      it_grade: null,
      notes: ['no readings'],
    });
    expect(all.C?.mae_mm).toMatchObject({ estimate: null, notes: ['no readings'] });
  });
});

describe('doubtful readings', () => {
  it('asks from 10 % or 2 mm off, whichever is less', () => {
    expect(doubtReading(22, 20)).toBeNull();
    expect(doubtReading(22.01, 20)?.far_mm).toBeCloseTo(2.01);
    expect(doubtReading(4.4, 5)?.far_mm).toBeCloseTo(-0.6);
    expect(doubtReading(82.1, 80)).not.toBeNull();
    expect(doubtReading(201, 20)).not.toBeNull();
  });
});

import { describe, expect, it } from 'vitest';
import type { PairRow } from '../../statistics/compare';
import type { Advice, AxisFit } from '../../measures/metrology';
import { describeAdvice, describeVerdict } from './index';

const at = (estimate: number, half: number | null = null) => ({
  n: 9,
  estimate,
  low: half === null ? null : estimate - half,
  high: half === null ? null : estimate + half,
});
const NO_ADVICE: Advice = {
  terms: [],
  scale_to_enter: null,
  wall_compensation_mm: null,
  hole_compensation_mm: null,
  hole_extra_mm: null,
  mae_before_mm: 0.2,
  mae_after_mm: 0.05,
  notes: [],
};
const fitWith = (advice: Partial<Advice> | null): AxisFit => ({
  n: 9,
  scale: null,
  offset_mm: null,
  hole_offset_mm: null,
  residual_mae_mm: null,
  notes: [],
  advice: advice && { ...NO_ADVICE, ...advice },
});
const said = (axis: 'x' | 'y' | 'z' | 'none', advice: Partial<Advice> | null) => {
  const fit = Object.fromEntries(
    (['x', 'y', 'z', 'none'] as const).map((one) => [one, fitWith(one === axis ? advice : null)]),
  );
  return describeAdvice({ fit: fit as Record<'x' | 'y' | 'z' | 'none', AxisFit> });
};

describe('advice in words', () => {
  it('a scale: what prints 0.3 % small is drawn by its inverse', () => {
    // 1/0.997 = 1.00301.
    const [one] = said('x', { terms: ['scale'], scale_to_enter: at(1.00301, 0.0005) });
    expect(one?.finding).toBe('X: 0.30 % small');
    expect(one?.remedy).toBe('scale 100.30 ± 0.05 %');
    expect(one).toMatchObject({ before_mm: 0.2, after_mm: 0.05 });
  });

  it('walls: half of what a length is too large goes off each wall', () => {
    const [fat] = said('y', { terms: ['offset'], wall_compensation_mm: at(-0.035, 0.004) });
    expect(fat?.finding).toBe('Y: walls 0.07 mm too fat');
    expect(fat?.remedy).toBe('−0.035 ± 0.004 mm per wall');
    const [thin] = said('y', { terms: ['offset'], wall_compensation_mm: at(0.02) });
    expect(thin?.finding).toBe('Y: walls 0.04 mm too thin');
    expect(thin?.remedy).toBe('+0.020 mm per wall');
  });

  it('upwards the whole of it is one offset of Z', () => {
    const [high] = said('z', { terms: ['offset'], wall_compensation_mm: at(-0.05, 0.01) });
    expect(high?.finding).toBe('Z: heights 0.10 mm too high');
    expect(high?.remedy).toBe('Z offset −0.100 ± 0.020 mm');
    expect(said('z', { terms: ['offset'], wall_compensation_mm: at(0.05) })[0]?.finding).toContain(
      'too low',
    );
  });

  it('holes: what they lose beyond the walls', () => {
    const [lost] = said('none', { terms: ['hole_offset'], hole_extra_mm: at(0.06, 0.01) });
    expect(lost?.finding).toBe('Round features: holes lose another 0.12 mm');
    expect(lost?.remedy).toBe('holes +0.060 ± 0.010 mm more per wall');
    const [won] = said('none', { terms: ['hole_offset'], hole_extra_mm: at(-0.02) });
    expect(won?.finding).toContain('holes gain another 0.04 mm');
  });

  it('says nothing where there is nothing to mend', () => {
    expect(said('x', null)).toEqual([]);
    expect(said('x', { terms: [] })).toEqual([]);
  });
});

const row = (verdict: PairRow['verdict'], estimate: number, needed: number | null = null) =>
  ({
    contender: 'C',
    reference: 'R',
    artefacts: 2,
    strata: 2,
    on: [],
    verdict,
    prints_needed: needed,
    prints_as_seen: null,
    p: null,
    p_adjusted: null,
    df: null,
    notes: [],
    difference: { estimate, low: null, high: null },
  }) as PairRow;

describe('a verdict in words', () => {
  it('with its figure', () => {
    expect(describeVerdict(row('better', -0.06), 'mm')).toBe('better · 0.06 mm');
    expect(describeVerdict(row('worse', 12.4), 'points')).toBe('worse · 12 points');
    // exp(−0.693) = 0.5: half the time.
    expect(describeVerdict(row('better', -Math.LN2), 'time')).toBe('better · 50 % less time');
    expect(describeVerdict(row('worse', Math.LN2), 'time')).toBe('worse · 100 % more time');
  });

  it('or with what is wanting', () => {
    expect(describeVerdict(row('unsettled', 0.01, 4), 'mm')).toBe(
      'too close to call · 4 prints each would tell',
    );
    expect(describeVerdict(row('unsettled', 0.01), 'mm')).toBe('too close to call');
    expect(describeVerdict(row('one_print', 0.01), 'mm')).toBe('one print');
    expect(describeVerdict(row('trivial', 0.001), 'mm')).toBe('trivial');
    expect(describeVerdict(row('indistinguishable', 0), 'mm')).toBe('indistinguishable');
  });
});

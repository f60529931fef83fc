import { describe, expect, it } from 'vitest';
import { compareFamily, printsNeeded, type FamilyOptions } from '.';

const options: FamilyOptions = {
  reference: 'R',
  alpha: 0.05,
  delta: null,
  isLargerBetter: false,
};

const one = (contender: string, own: readonly number[], reference: readonly number[]) => ({
  contender,
  contenderValues: new Map([['part', own]]),
  referenceValues: new Map([['part', reference]]),
});

// Student 1908, extra hours of sleep by two drugs; Welch's test as R prints it.
const DRUG_1 = [0.7, -1.6, -0.2, -1.2, -0.1, 3.4, 3.7, 0.8, 0, 2];
const DRUG_2 = [1.9, 0.8, 1.1, 0.1, -0.1, 4.4, 5.5, 1.6, 4.6, 3.4];

describe('two-side rule', () => {
  it('on one artefact is Welch’s test', () => {
    const [row] = compareFamily([one('C', DRUG_1, DRUG_2)], options);
    expect(row?.difference.estimate).toBeCloseTo(-1.58, 10);
    expect(row?.difference.low).toBeCloseTo(-3.3654832, 6);
    expect(row?.difference.high).toBeCloseTo(0.2054832, 6);
    expect(row?.df).toBeCloseTo(17.776474, 5);
    expect(row?.p).toBeCloseTo(0.0793941, 6);
    expect(row?.p_adjusted).toBeCloseTo(0.0793941, 6);
    expect(row?.verdict).toBe('unsettled');
    expect(row?.notes).toEqual(['no smallest difference of interest is stated']);
  });

  it('shares the error probability out over the comparisons that have an interval', () => {
    const rows = compareFamily(
      [one('A', DRUG_1, DRUG_2), one('B', DRUG_1, DRUG_2), one('C', [1], DRUG_2)],
      options,
    );
    // 1 − (1 − 0.0793941)², two comparisons; the one print makes none.
    expect(rows[0]?.p_adjusted).toBeCloseTo(0.1524848, 6);
    expect(rows[2]).toMatchObject({ verdict: 'one_print', p: null, df: null, prints_needed: null });
    expect(rows[2]?.difference).toMatchObject({ low: null, high: null });
  });

  it('leaves out a contender without a common artefact', () => {
    const apart = {
      contender: 'C',
      contenderValues: new Map([['other', [1, 2]]]),
      referenceValues: new Map([['part', [1, 2]]]),
    };
    expect(compareFamily([apart], options)).toEqual([]);
  });
});

describe('verdicts', () => {
  const verdictOf = (own: number[], reference: number[], delta: number | null, larger = false) =>
    compareFamily([one('C', own, reference)], { ...options, delta, isLargerBetter: larger })[0]
      ?.verdict;
  const low = [0.1, 0.11, 0.09, 0.1];
  const high = [0.3, 0.31, 0.29, 0.3];

  it('names what is smaller better or worse by the figure’s sense', () => {
    expect(verdictOf(low, high, 0.05)).toBe('better');
    expect(verdictOf(high, low, 0.05)).toBe('worse');
    expect(verdictOf(high, low, 0.05, true)).toBe('better');
  });

  it('calls a difference trivial that is surely there and surely too small', () => {
    expect(verdictOf(high, low, 1)).toBe('trivial');
  });

  it('calls sides indistinguishable only where a smallest difference is stated', () => {
    expect(verdictOf(low, [...low].reverse(), 0.05)).toBe('indistinguishable');
    expect(verdictOf(low, [...low].reverse(), null)).toBe('unsettled');
  });

  it('decides by the plain difference where nothing varies', () => {
    const rows = (own: number[]) =>
      compareFamily([one('C', own, [0.3, 0.3])], { ...options, delta: 0.05 })[0];
    expect(rows([0.1, 0.1])).toMatchObject({ verdict: 'better', p: 0, df: null });
    expect(rows([0.1, 0.1])?.difference).toMatchObject({ low: -0.19999999999999998 });
    expect(rows([0.3, 0.3])).toMatchObject({ verdict: 'indistinguishable', p: 1 });
    expect(rows([0.1 + 0.2, 0.1 + 0.2])).toMatchObject({ verdict: 'indistinguishable', p: 1 });
  });
});

describe('prints needed', () => {
  const ask = { variance: 1, strata: 1, alpha: 0.05, fewestPrints: 2 };

  it('for a difference of one standard deviation agrees with the textbook’s t tables', () => {
    // Equivalence is the harder of the two: n = 2(t.95 + t.90)², 18 a side at 34 degrees of freedom:
    // 2(1.691 + 1.307)² = 17.98.
    expect(printsNeeded({ ...ask, delta: 1 })).toBe(18);
  });

  it('for small differences tends to the normal formula', () => {
    // 2·100²·(1.644854 + 1.281552)² = 171 277
    expect(printsNeeded({ ...ask, delta: 0.01 })).toBeGreaterThanOrEqual(171_277);
    expect(printsNeeded({ ...ask, delta: 0.01 })).toBeLessThanOrEqual(171_280);
  });

  it('is what finds the difference where that is harder than showing equivalence', () => {
    // At α = 0.5: 2·100²·(0.674490 + 0.841621)² = 45 971, against 32 848 for equivalence.
    expect(printsNeeded({ ...ask, alpha: 0.5, delta: 0.01 })).toBeGreaterThanOrEqual(45_971);
    expect(printsNeeded({ ...ask, alpha: 0.5, delta: 0.01 })).toBeLessThanOrEqual(45_974);
  });

  it('is not known where more are needed than anybody prints', () => {
    expect(printsNeeded({ ...ask, delta: 1e-9 })).toBeNull();
  });

  it('falls with the artefacts that are compared', () => {
    expect(printsNeeded({ ...ask, delta: 1, strata: 4 })).toBeLessThan(7);
  });

  it('is more than there are already', () => {
    expect(printsNeeded({ ...ask, delta: 10, fewestPrints: 6 })).toBe(7);
    expect(printsNeeded({ ...ask, delta: 10, fewestPrints: 1 })).toBe(2);
  });
});

describe('prints that would show a difference as large as it looks', () => {
  const sides = (shift: number) => ({
    contender: 'C',
    contenderValues: new Map([['part/PLA', [1.1 + shift, 0.9 + shift, 1.3 + shift]]]),
    referenceValues: new Map([['part/PLA', [1, 0.8, 1.2]]]),
  });
  const rowOf = (shift: number, delta: number | null) =>
    compareFamily([sides(shift)], {
      reference: 'R',
      alpha: 0.05,
      delta,
      isLargerBetter: false,
    })[0];

  it('are fewer than what settles it either way, and not told where it looks small', () => {
    // Means 0.2 + 0.1 apart, s² = 0.04 on both sides, F = 1: n ≥ 2·0.04/0.09·(t₀.₉₇₅ + t₀.₈)².
    // n = 8: ν = 14, (2.145 + 0.868)² · 0.889 = 8.07 > 8; n = 9: ν = 16, (2.120 + 0.865)² · 0.889 = 7.92.
    const row = rowOf(0.2, 0.1);
    expect(row).toMatchObject({ verdict: 'unsettled', strata: 1, artefacts: 1 });
    expect(row?.prints_as_seen).toBe(9);
    expect(row?.prints_needed).toBeGreaterThan(50);
    expect(rowOf(0.2, 0.3)?.prints_as_seen).toBeNull();
    expect(rowOf(0.2, null)?.prints_as_seen).toBeNull();
  });
});

import { describe, expect, it } from 'vitest';
import { howManyPrints, inARow } from './how-many';

const SCATTER = { variance: 0.01 ** 2, df: 8, artefacts: 1 };
const asked = { delta: 0.02, others: 1, planned: 3, unit: 'mm' };

describe('how many prints find a difference', () => {
  it('is the fewest whose difference is not above the one that matters', () => {
    const found = howManyPrints(SCATTER, asked);
    const points = found?.series[0]?.points ?? [];
    expect(points.map(([prints]) => prints)).toEqual(Array.from({ length: 19 }, (_, at) => at + 2));
    // Two of each: √(2·0.01²/2)·(t(0.975; 2) + t(0.8; 2)) = 0.01·(4.3027 + 1.0607), by the tables.
    expect(points[0]?.[1]).toBeCloseTo(0.053634, 5);
    const enough = points.find(([, value]) => (value ?? 1) <= 0.02)?.[0];
    expect(found?.sentence).toContain(
      `${enough} prints each find 0.02 mm, the smallest difference that matters.`,
    );
    expect(found?.sentence).toContain(`The plan’s 3 would find ${points[1]?.[1]?.toFixed(3)} mm.`);
    expect(found?.sentence).toContain('1 comparisons, scatter from 8 degrees of freedom');
  });

  it('is more where several are compared, for they share the error probability', () => {
    const least = (others: number) =>
      howManyPrints(SCATTER, { ...asked, others })?.series[0]?.points[4]?.[1] ?? 0;
    expect(least(5)).toBeGreaterThan(least(1));
    expect(least(0)).toBe(least(1));
  });

  it('says where more than the chart shows are needed, and where nothing that matters is stated', () => {
    expect(howManyPrints(SCATTER, { ...asked, delta: 0.001 })?.sentence).toContain(
      'Over 20 prints each would be needed for 0.001 mm.',
    );
    const open = howManyPrints(SCATTER, { ...asked, delta: null, planned: 1 })?.sentence;
    expect(open?.startsWith('No smallest difference of interest is stated.')).toBe(true);
    expect(howManyPrints(null, asked)).toBeNull();
  });

  it('is told in the unit that is shown', () => {
    const toUnit = (value: number) => 100 * value;
    const points = howManyPrints(SCATTER, { ...asked, toUnit })?.series[0]?.points;
    expect(points?.[0]?.[1]).toBeCloseTo(5.3634, 3);
  });
});

describe('prints in a row', () => {
  it('are those of the tables for success runs', () => {
    // ln(1 − C)/ln R, rounded up: 22 and 29 for nine in ten, 459 for 99 in 100 at 99 %.
    expect(inARow.find(({ reliability }) => reliability === 0.9)).toMatchObject({
      at90: 22,
      at95: 29,
    });
    expect(inARow.find(({ reliability }) => reliability === 0.99)).toMatchObject({
      at90: 230,
      at95: 299,
    });
  });
});

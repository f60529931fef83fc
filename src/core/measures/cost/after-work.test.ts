import { describe, expect, it } from 'vitest';
import { withAfterWork } from './after-work';
import type { Cost } from './cost';

const COST: Cost = {
  attempts: 4,
  good_copies: 2,
  material: 4,
  energy: 0,
  machine: 0,
  upkeep: 0,
  hands: 0,
  total: 4,
  per_good_part: 2,
  per_good_part_low: 1.7,
  per_good_part_high: 2.6,
  notes: [],
};

describe('after-work in the cost of a good part', () => {
  it('adds the hands at their wage, and the distances of the ends as squares', () => {
    // 5 min at 24 an hour: 2. Below: 0.3 and 0.4 make 0.5; above: 0.6 and 0.8 make 1.
    const found = withAfterWork(COST, { estimate: 5, low: 4, high: 7 }, 24);
    expect(found.after_work).toBeCloseTo(2, 12);
    expect(found.per_good_part).toBeCloseTo(4, 12);
    expect(found.per_good_part_low).toBeCloseTo(3.5, 12);
    expect(found.per_good_part_high).toBeCloseTo(5, 12);
    expect(found.notes).toEqual([]);
  });

  it('keeps the ends of the cost where the minutes have none, and says so', () => {
    const found = withAfterWork(COST, { estimate: 0, low: null, high: null }, 24);
    expect(found).toMatchObject({ after_work: 0, per_good_part: 2 });
    expect(found.per_good_part_low).toBeCloseTo(1.7, 12);
    expect(found.notes).toEqual(['after-work: one print, no interval of its own']);
  });

  it('never goes below nothing', () => {
    const found = withAfterWork(COST, { estimate: 1, low: -60, high: 62 }, 60);
    expect(found.per_good_part_low).toBe(0);
  });

  it.each([
    ['no part was looked at', undefined, 24, 'after-work: no part was looked at'],
    ['no wage', { estimate: 5, low: 4, high: 6 }, null, 'after-work: wage not known'],
  ])('is not known where there is %s', (_, minutes, wage, note) => {
    const found = withAfterWork(COST, minutes, wage);
    expect(found).toMatchObject({ after_work: null, per_good_part: null });
    expect(found.notes).toEqual([note]);
  });

  it('is not known where the cost is not, for the cost’s own reason', () => {
    const unknown = { ...COST, per_good_part: null, notes: ['no good part: no cost of one'] };
    const found = withAfterWork(unknown, { estimate: 5, low: 4, high: 6 }, 24);
    expect(found.per_good_part).toBeNull();
    expect(found.notes).toEqual(['no good part: no cost of one']);
  });
});

import { describe, expect, it } from 'vitest';
import { cheapestOf } from '.';

const cost = (per_good_part: number | null, per_good_part_low: number | null) => ({
  per_good_part,
  per_good_part_low,
});

describe('the cheapest', () => {
  it('is named where no other reaches down to it', () => {
    expect(cheapestOf({ A: cost(2, 1.5), B: cost(3, 2.1), C: cost(null, null) })).toBe('A');
  });

  it.each([
    ['another reaches down to it', { A: cost(2, 1.5), B: cost(3, 1.9) }],
    ['another has no interval', { A: cost(2, 1.5), B: cost(3, null) }],
    ['there is nobody beside', { A: cost(2, 1.5), B: undefined }],
  ])('is nobody where %s', (_, costs) => {
    expect(cheapestOf(costs)).toBeNull();
  });
});

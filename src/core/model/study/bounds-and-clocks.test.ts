import { describe, expect, it } from 'vitest';
import { isAtLeast, isAtMost } from './allowance';
import { clockOf, minutesOf } from './clock';

describe('bounds', () => {
  it('are inclusive, whatever binary fractions add', () => {
    // 0.1 + 0.2 is 0.30000000000000004 (IEEE 754).
    expect(isAtMost(0.1 + 0.2, 0.3)).toBe(true);
    expect(isAtLeast(0.3, 0.1 + 0.2)).toBe(true);
    expect(isAtMost(0.3001, 0.3)).toBe(false);
    expect(isAtLeast(0.2999, 0.3)).toBe(false);
  });
});

describe('clocks', () => {
  it('write hours, minutes and seconds with two digits', () => {
    expect([0, 59.6, 3909, 36000].map(clockOf)).toEqual([
      '0:00:00',
      '0:01:00',
      '1:05:09',
      '10:00:00',
    ]);
    expect([0, 9.9, 125.9, 3600].map(minutesOf)).toEqual(['0:00', '0:09', '2:05', '60:00']);
  });
});

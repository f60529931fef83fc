import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { toggled, viewOf, viewQuery, withReference } from '../../contract/view';
import { scaleFor } from '../marks/DotStrip';
import { readDuration, readNumber, withOffset, writeDuration } from './entry';
import { duration, fixed, signed } from './format';

describe('what is typed', () => {
  it('numbers, with a comma as calipers type it', () => {
    expect(readNumber('20.06')).toEqual({ value: 20.06 });
    expect(readNumber(' 20,06 ')).toEqual({ value: 20.06 });
    expect(readNumber('.5')).toEqual({ value: 0.5 });
    expect(readNumber('')).toEqual({ value: null });
    expect(readNumber('2o.1')).toHaveProperty('fault');
    expect(readNumber('1e3')).toHaveProperty('fault');
    expect(readNumber('20.1.2')).toHaveProperty('fault');
  });

  it('durations', () => {
    expect(readDuration('1:05:09')).toEqual({ value: 3909 });
    expect(readDuration('48:10')).toEqual({ value: 2890 });
    expect(readDuration('90')).toEqual({ value: 90 });
    expect(readDuration('1:75')).toHaveProperty('fault');
    expect(readDuration('1:65:00')).toHaveProperty('fault');
    // An hour has no sixtieth minute, and a minute no sixtieth second.
    expect(readDuration('1:60:00')).toHaveProperty('fault');
    expect(readDuration('1:00:60')).toHaveProperty('fault');
    expect(readDuration('1:59:59')).toEqual({ value: 7199 });
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 1e7 }), (seconds) => {
        expect(readDuration(writeDuration(seconds))).toEqual({ value: seconds });
      }),
    );
  });

  it('times keep the offset that they had', () => {
    expect(withOffset('2026-03-02T09:30', '2026-03-01T00:00:00+05:30')).toBe(
      '2026-03-02T09:30:00+05:30',
    );
    expect(withOffset('2026-03-02T09:30:10', null)).toMatch(/^2026-03-02T09:30:10[+-]\d\d:\d\d$/);
  });
});

describe('what is shown', () => {
  it('true minus signs, and no minus zero', () => {
    expect(fixed(-0.126, 2)).toBe('−0.13');
    expect(fixed(-0.001, 2)).toBe('0.00');
    expect(signed(0.05, 2)).toBe('+0.05');
    expect(signed(-0.05, 2)).toBe('−0.05');
    expect(signed(0.001, 2)).toBe('±0.00');
    expect(duration(3909)).toBe('1:05:09');
    expect(duration(2890)).toBe('48:10');
  });

  it('scales hold all values between round marks', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: -1e3, max: 1e3, noNaN: true }), { minLength: 1, maxLength: 9 }),
        (values) => {
          const scale = scaleFor(values);
          // A value that is past a mark by rounding only stays on it.
          const slack = 1e-8 * (scale.high - scale.low);
          expect(scale.low).toBeLessThanOrEqual(Math.min(...values) + slack);
          expect(scale.high).toBeGreaterThanOrEqual(Math.max(...values) - slack);
          expect(scale.ticks.length).toBeGreaterThan(1);
          expect(scale.ticks.length).toBeLessThan(9);
        },
      ),
    );
  });
});

describe('the view in the address', () => {
  it('comes back as it was sent', () => {
    const view = { hidden: new Set(['C', 'A b']), reference: 'D' };
    expect(viewOf(new URLSearchParams(viewQuery(view)))).toEqual(view);
    expect(viewQuery({ hidden: new Set(), reference: null })).toBe('');
  });

  it('hides, shows, and never hides the reference', () => {
    const plain = { hidden: new Set<string>(), reference: null };
    expect(viewQuery(toggled(plain, 'A'))).toBe('?hide=A');
    expect(viewQuery(toggled(toggled(plain, 'A'), 'A'))).toBe('');
    expect(viewQuery(withReference(toggled(plain, 'A'), 'A', 'R'))).toBe('?ref=A');
    expect(viewQuery(withReference(plain, 'R', 'R'))).toBe('');
  });
});

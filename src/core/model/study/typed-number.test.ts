import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readTypedNumber } from '.';

describe('a number that somebody types', () => {
  it.each([
    ['1.099,00', 1099],
    ['1 099.00', 1099],
    ['1,099.00', 1099],
    ['1\u00a0099,5', 1099.5],
    ["12'345.678", 12345.678],
    ['1.234.567', 1234567],
    ['1,099', 1.099],
    ['20.01', 20.01],
    ['20,01', 20.01],
    ['.5', 0.5],
    ['5.', 5],
    ['\u22120,02', -0.02],
    ['+3', 3],
    ['0.099', 0.099],
  ])('is understood: %s', (typed, value) => {
    expect(readTypedNumber(typed)).toEqual({ value });
  });

  it.each(['1,09.5', '1.2.3', '1 09', '12,3456,7', 'wide', '1e5', '--3', '.', ',', '1,234,56.7'])(
    'is refused where it is none: %s',
    (typed) => {
      expect(readTypedNumber(typed)).toMatchObject({ fault: `“${typed}” is not a number` });
    },
  );

  it.each(['1.099', '1,099', '-12.500'])('is asked about where it can be two: %s', (typed) => {
    const read = readTypedNumber(typed, { asks: true });
    const [small = 0, large = 0] = 'choices' in read ? (read.choices ?? []) : [];
    expect(large / small).toBeCloseTo(1000, 9);
  });

  it.each(['1.0990', '1099', '0.312', '1.09', '1 099', '1.099,0'])(
    'is not asked about: %s',
    (typed) => {
      expect(readTypedNumber(typed, { asks: true })).toHaveProperty('value');
    },
  );

  it('is not known where nothing was typed', () => {
    expect(readTypedNumber('  ')).toEqual({ value: null });
  });

  it('is the same with every sign between thousands and before decimals', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1000, max: 999_999_999 }),
        fc.integer({ min: 0, max: 99 }),
        fc.constantFrom(['.', ','], [',', '.'], [' ', ','], [' ', '.'], ["'", '.']),
        (whole, cents, [group = '', decimal = '']) => {
          const grouped = String(whole).replace(/\B(?=(\d{3})+$)/g, group);
          const typed = `${grouped}${decimal}${String(cents).padStart(2, '0')}`;
          expect(readTypedNumber(typed, { asks: true })).toEqual({ value: whole + cents / 100 });
        },
      ),
    );
  });
});

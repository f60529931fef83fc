import { describe, expect, it } from 'vitest';
import { ballotsNeeded, fewestRight, powerOfPanels, usualAim } from '.';

const aim = (effect: number, power = 0.8, alpha = 0.05) => ({ alpha, power, effect });

/** The first number of ballots with the power, as tables give it. */
const first = (kind: 'triangle' | 'guess' | 'paired', effect: number, power: number): number =>
  1 + powerOfPanels(kind, 400, aim(effect, power)).findIndex((own) => own >= power);

describe('right answers that are wanted', () => {
  // ISO 4120, table A.1, and ISO 5495, table A.1 (one-sided), at 0.05.
  it.each([
    ['triangle', 6, 5],
    ['triangle', 12, 8],
    ['triangle', 18, 10],
    ['triangle', 24, 13],
    ['triangle', 30, 15],
    ['triangle', 36, 18],
    ['guess', 10, 9],
    ['guess', 20, 15],
    ['guess', 30, 20],
    ['guess', 40, 26],
  ] as const)('of a %s of %i are %i', (kind, ballots, right) => {
    expect(fewestRight(kind, ballots, 0.05)).toBe(right);
    expect(fewestRight(kind, ballots, 0.05, right - 2)).toBe(right);
  });

  // Tables of the sign test, two-sided at 0.05.
  it.each([
    [10, 9],
    [20, 15],
    [25, 18],
    [50, 33],
  ])('of %i pairs are %i', (ballots, right) => {
    expect(fewestRight('paired', ballots, 0.05)).toBe(right);
  });

  it('of too few are more than there are', () => {
    expect(fewestRight('triangle', 2, 0.05)).toBe(3);
    expect(powerOfPanels('triangle', 2, aim(1))).toEqual([0, 0]);
  });
});

describe('ballots that are needed', () => {
  // ISO 4120, table A.3: alpha 0.05; the first number with the power.
  it.each([
    [0.5, 0.8, 16],
    [0.5, 0.9, 20],
    [0.5, 0.95, 23],
    [0.4, 0.8, 23],
    [0.4, 0.9, 30],
    [0.4, 0.95, 40],
    [0.3, 0.95, 66],
  ])('for %f who can tell and power %f begin with %i in a triangle', (effect, power, ballots) => {
    expect(first('triangle', effect, power)).toBe(ballots);
  });

  it('are those from which on the power holds, not the first that happen to have it', () => {
    // Exact binomial sums: 23 and 25 have the power of 0.8, 24 has not.
    const [at23 = 0, at24 = 0, at25 = 0] = powerOfPanels('triangle', 25, aim(0.4)).slice(22);
    expect([at23 >= 0.8, at24 >= 0.8, at25 >= 0.8]).toEqual([true, false, true]);
    expect(ballotsNeeded('triangle', aim(0.4))).toBe(25);
    expect(ballotsNeeded('triangle', aim(0.5))).toBe(16);
    expect(ballotsNeeded('guess', aim(0.5))).toBe(28);
    expect(ballotsNeeded('guess', aim(0.4))).toBe(42);
  });

  it('of pairs are for whoever prefers the one or the other', () => {
    // One who always prefers the same: six heads of six are the first that the sign test takes.
    expect(ballotsNeeded('paired', aim(1))).toBe(6);
    expect(ballotsNeeded('paired', aim(0))).toBe(6);
    // Nothing to be found is found as often as alpha allows, at most.
    for (const power of powerOfPanels('paired', 60, aim(0.5)))
      expect(power).toBeLessThanOrEqual(0.05);
    expect(ballotsNeeded('paired', aim(0.5))).toBeNull();
  });

  it('are asked for three in ten who can tell, and for 65 of 100 who prefer', () => {
    expect(usualAim('triangle')).toEqual({ alpha: 0.05, power: 0.8, effect: 0.3 });
    expect(usualAim('paired').effect).toBe(0.65);
  });
});

import { describe, expect, it } from 'vitest';
import type { RectifiedPhoto } from '../tiles';
import { matchingGains, windowsOf } from './windows';

const shown = ['a', 'b', 'c'].map((path) => ({
  photo: { path } as RectifiedPhoto,
  contender: path.toUpperCase(),
  code: `S-${path}`,
}));
const seen = (...args: Parameters<typeof windowsOf>) =>
  windowsOf(...args).map(({ at, photos, gains }) => [at, photos.map(({ path }) => path), gains]);

describe('the windows of side by side', () => {
  it('are one a photo, each with its gain; 1 where none is known', () => {
    expect(seen('side', 0, shown, [2, 0.5])).toEqual([
      [0, ['a'], [2]],
      [1, ['b'], [0.5]],
      [2, ['c'], [1]],
    ]);
  });

  it('are the one whose turn it is while they blink', () => {
    expect(seen('blink', 1, shown, [2, 0.5, 4])).toEqual([[1, ['b'], [0.5]]]);
    expect(seen('blink', 7, shown, [])).toEqual([]);
  });

  it('lay the first two over each other, or the only one alone', () => {
    expect(seen('split', 0, shown, [2, 0.5])).toEqual([[0, ['a', 'b'], [2, 0.5]]]);
    expect(seen('difference', 0, shown.slice(0, 1), [])).toEqual([[0, ['a'], [1]]]);
  });
});

describe('gains that match greys', () => {
  it('bring each to the mean of those that are known', () => {
    expect(matchingGains([50, 100, 150])).toEqual([2, 1, 100 / 150]);
    expect(matchingGains([80, null, 120])).toEqual([1.25, 1, 100 / 120]);
    expect(matchingGains([null, null])).toEqual([1, 1]);
    expect(matchingGains([])).toEqual([]);
  });
});

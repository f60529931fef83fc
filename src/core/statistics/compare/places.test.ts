import { describe, expect, it } from 'vitest';
import { placesOf, placesText } from '.';

const known = (estimate: number, low: number | null, high: number | null) => ({
  estimate,
  low,
  high,
});

describe('places', () => {
  it('are shared by whom the intervals do not tell apart', () => {
    const all = [known(1, 0.8, 1.2), known(1.1, 0.9, 1.3), known(2, 1.9, 2.1), known(5, 4, 6)];
    expect(placesOf(all, false).map((one) => one && placesText(one))).toEqual([
      '1–2',
      '1–2',
      '3',
      '4',
    ]);
    expect(placesOf(all, true).map((one) => one && placesText(one))).toEqual([
      '3–4',
      '3–4',
      '2',
      '1',
    ]);
  });

  it('of one without an interval reach everywhere, and of one not known are none', () => {
    const unknown = { estimate: null, low: null, high: null };
    const all = [known(1, 0.9, 1.1), known(2, null, null), known(3, 2.9, 3.1), unknown];
    expect(placesOf(all, false)).toEqual([[1, 2], [1, 3], [2, 3], null]);
  });
});

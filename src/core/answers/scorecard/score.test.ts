import { describe, expect, it } from 'vitest';
import type { Card, Evidence, EvidenceOfCriteria } from './card';
import { passes, winnerOf } from './score';

const known = (value: number): Evidence => ({ value, low: null, high: null, z: 0, bound: null });

describe('a condition', () => {
  it('is passed at its limit but for the ninth decimal, on either side', () => {
    const most = { key: 'price' as const, op: '<=' as const, value: 0.3 };
    const least = { ...most, op: '>=' as const };
    // 0.1 + 0.2 is 0.30000000000000004.
    expect(passes(most, known(0.1 + 0.2))).toBe(true);
    expect(passes(most, known(0.3 + 5e-10))).toBe(true);
    expect(passes(most, known(0.3 + 2e-9))).toBe(false);
    expect(passes(least, known(0.3 - 5e-10))).toBe(true);
    expect(passes(least, known(0.3 - 2e-9))).toBe(false);
    expect(passes(most, undefined)).toBeNull();
  });
});

describe('who is first', () => {
  const card = {
    criteria: [
      {
        key: 'price',
        weight: 1,
        points: [
          [0, 0],
          [1, 1],
        ],
      },
      {
        key: 'success',
        weight: 1,
        points: [
          [0, 0],
          [1, 1],
        ],
      },
    ],
  } as unknown as Card;

  it('is told with what is not known worth a half', () => {
    const of = (known_of_a: number): EvidenceOfCriteria => ({
      price: { A: known(known_of_a), B: known(0.5) },
      success: { B: known(0.5) },
    });
    expect(winnerOf(card, of(0.49), ['A', 'B'])).toBe('B');
    expect(winnerOf(card, of(0.51), ['A', 'B'])).toBe('A');
    // Of equals the first by id.
    expect(winnerOf(card, of(0.5), ['B', 'A'])).toBe('A');
  });
});

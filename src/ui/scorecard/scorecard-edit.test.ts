import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cardFault, freeName, nameOfCard, type OwnCard } from './cards';
import { faultOf, firstCurve, moved, reachOf, withPoint } from './curve-edit';
import { drawable } from './use-cards';

const curve = [
  [0, 1],
  [10, 0.5],
  [20, 0],
] as const;
const known = (value: number | null) => ({ value, low: null, high: null, z: 0, bound: null });

describe('a value curve under the hand', () => {
  it('stays between its neighbours, and within 0 and 1', () => {
    expect(moved(curve, 1, [5, 0.8], [0, 20])[1]).toEqual([5, 0.8]);
    expect(moved(curve, 1, [25, 1.7], [0, 20])[1]?.[1]).toBe(1);
    const [x] = moved(curve, 1, [25, -3], [0, 20])[1] ?? [];
    expect(x).toBeLessThan(20);
    expect(x).toBeGreaterThan(19);
  });

  it('never folds back, wherever its points are dragged', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(
            fc.nat(3),
            fc.double({ min: -100, max: 100, noNaN: true }),
            fc.double({ min: -1, max: 2, noNaN: true }),
          ),
          { maxLength: 20 },
        ),
        (drags) => {
          let points: readonly (readonly [number, number])[] = [
            [0, 0],
            [1, 0.2],
            [5, 0.4],
            [9, 1],
          ];
          for (const [at, x, u] of drags as [number, number, number][]) {
            points = moved(points, at, [x, u], [-10, 20]);
          }
          expect(faultOf(points)).toBeNull();
        },
      ),
    );
  });

  it('gains a point in its widest stretch, without a change of what it says', () => {
    const more = withPoint([
      [0, 0],
      [1, 1],
      [9, 0],
    ]);
    expect(more).toEqual([
      [0, 0],
      [1, 1],
      [5, 0.5],
      [9, 0],
    ]);
  });

  it('is drawn over all of its points and all that anybody has', () => {
    const [low, high] = reachOf(curve, [30]);
    expect(low).toBeCloseTo(-1.8, 12);
    expect(high).toBeCloseTo(31.8, 12);
    expect(
      reachOf(
        [
          [3, 0],
          [3.5, 1],
        ],
        [],
      ),
    ).toEqual([2.97, 3.53]);
  });

  it.each([
    [[[0, 1]], 'A curve needs at least two points.'],
    [
      [
        [0, 1],
        [0, 0],
      ],
      'The values must ascend: 0 comes after 0.',
    ],
    [
      [
        [0, 1],
        [5, 0],
        [4, 1],
      ],
      'The values must ascend: 4 comes after 5.',
    ],
    [
      [
        [0, 1],
        [5, 1.2],
      ],
      'What it is worth is from 0 to 1, not 1.2.',
    ],
    [
      [
        [0, 1],
        [Number.NaN, 0],
      ],
      'Every point needs two numbers.',
    ],
    [
      [
        [0, 1],
        [5, 0],
      ],
      null,
    ],
  ] as const)('%j: %s', (points, fault) => {
    expect(faultOf(points)).toBe(fault);
  });

  it('begins from the worst that anyone has to the best', () => {
    const evidence = { A: known(0.081), B: known(0.0204), C: known(null) };
    expect(firstCurve(evidence, false)).toEqual([
      [0.0204, 1],
      [0.081, 0],
    ]);
    expect(firstCurve({ A: known(60), B: known(90) }, true)).toEqual([
      [60, 0],
      [90, 1],
    ]);
    const [low, high] = firstCurve({ A: known(5), B: known(5) }, null);
    expect(low?.[0]).toBeLessThan(5);
    expect(high?.[0]).toBeGreaterThan(5);
    expect(faultOf(firstCurve({}, null))).toBeNull();
  });
});

const card = (more: Partial<OwnCard> = {}): OwnCard => ({
  criteria: [
    {
      key: 'price',
      weight: 1,
      points: [
        [0, 1],
        [10, 0],
      ],
    },
  ],
  ...more,
});

describe('cards', () => {
  it('say why they cannot be filled in', () => {
    expect(cardFault(card())).toBeNull();
    expect(cardFault(card({ criteria: [] }))).toContain('Nothing counts yet');
    const weightless = card().criteria.map((one) => ({ ...one, weight: 0 }));
    expect(cardFault(card({ criteria: weightless }))).toContain('All weights are 0');
    expect(drawable(card({ criteria: weightless }))).toBeNull();
    expect(drawable(card())).toMatchObject({ draws: 20_000, concentration: 50, gates: [] });
  });

  it('have names of their own', () => {
    expect(nameOfCard(card(), 0)).toBe('the first card');
    expect(nameOfCard(card({ name: 'a farm' }), 1)).toBe('a farm');
    const cards = [card(), card({ name: 'a farm' }), card({ name: 'a farm 2' })];
    expect(freeName(cards, 'a farm')).toBe('a farm 3');
    expect(freeName(cards, 'props')).toBe('props');
  });
});

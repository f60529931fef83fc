import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  fillScorecard,
  largestWorth,
  passes,
  utilityAt,
  type Card,
  type CriterionEvidence,
  type Curve,
} from '.';

const known = (value: number, low: number | null = null, high: number | null = null) => ({
  value,
  low,
  high,
  bound: null,
  // Two-sided 95 %.
  z: low === null && high === null ? 0 : 1.959963984540054,
});
const beyond = (bound: CriterionEvidence['bound']) => ({
  value: null,
  low: null,
  high: null,
  z: 0,
  bound,
});

const CARD: Card = {
  criteria: [
    {
      key: 'accuracy_mm',
      weight: 3,
      points: [
        [0.02, 1],
        [0.12, 0],
      ],
    },
    {
      key: 'surface',
      weight: 2,
      points: [
        [40, 0],
        [70, 0.5],
        [100, 1],
      ],
    },
    {
      key: 'price',
      weight: 1,
      points: [
        [200, 1],
        [800, 0],
      ],
    },
  ],
  gates: [],
  draws: 20_000,
  concentration: 50,
};
const EVIDENCE = {
  accuracy_mm: {
    A: known(0.08, 0.06, 0.11),
    B: known(0.05, 0.04, 0.065),
    C: known(0.06, 0.05, 0.07),
  },
  surface: { A: known(78, 70, 84), B: known(80, 72, 90) },
  price: { A: known(289), B: known(649), C: known(569) },
};
const filled = (card: Partial<Card> = {}, evidence: object = EVIDENCE, ids = ['A', 'B', 'C']) =>
  fillScorecard({ ...CARD, ...card }, evidence as typeof EVIDENCE, ids, 1);

describe('a value curve', () => {
  const curve: Curve = [
    [0, 0.2],
    [10, 1],
    [20, 0],
  ];

  it('is linear between its points and constant outside', () => {
    const found = [-5, 0, 5, 10, 15, 20, 99].map((value) => utilityAt(curve, value));
    [0.2, 0.2, 0.6, 1, 0.5, 0, 0].forEach((truth, at) => expect(found[at]).toBeCloseTo(truth, 12));
    expect([utilityAt(curve, Infinity), utilityAt(curve, -Infinity)]).toEqual([0, 0.2]);
  });

  it('knows the largest value that is worth so much', () => {
    expect(largestWorth(curve, 0.5)).toBeCloseTo(15, 12);
    expect(largestWorth(curve, 0)).toBe(Infinity);
    expect(largestWorth(curve, 1.01)).toBeNull();
    // Worth it below 0 only, and at exactly 0.
    expect(
      largestWorth(
        [
          [-10, 1],
          [10, 0],
        ],
        0.75,
      ),
    ).toBeNull();
    expect(
      largestWorth(
        [
          [-10, 1],
          [10, 0],
        ],
        0.5,
      ),
    ).toBeCloseTo(0, 12);
    // A curve that falls and rises again: the last stretch counts.
    expect(
      largestWorth(
        [
          [0, 1],
          [10, 0],
          [20, 0.4],
          [30, 0],
        ],
        0.2,
      ),
    ).toBeCloseTo(25, 12);
  });

  it('is worth it at the largest, and at nothing beyond', () => {
    const points = fc
      .uniqueArray(fc.integer({ min: -50, max: 1000 }), { minLength: 2, maxLength: 6 })
      .chain((xs) =>
        fc
          .array(fc.double({ min: 0, max: 1, noNaN: true }), {
            minLength: xs.length,
            maxLength: xs.length,
          })
          .map((us) => [...xs].sort((a, b) => a - b).map((x, at) => [x, us[at] ?? 0] as const)),
      );
    fc.assert(
      fc.property(points, fc.double({ min: 0, max: 1, noNaN: true }), (own, least) => {
        const largest = largestWorth(own, least);
        const beyond = [0, 1, 50, 400, 2000].map((more) => (largest ?? 0) + 0.01 + more);
        if (largest === Infinity) expect(utilityAt(own, 1e9)).toBeGreaterThanOrEqual(least - 1e-9);
        else if (largest === null) expect(utilityAt(own, 0)).toBeLessThan(least);
        else {
          expect(utilityAt(own, largest)).toBeGreaterThanOrEqual(least - 1e-9);
          for (const value of beyond) expect(utilityAt(own, value)).toBeLessThan(least + 1e-4);
        }
      }),
    );
  });
});

describe('a scorecard', () => {
  it('scores by weights that sum to 1, as a range where evidence is missing', () => {
    const { criteria, contenders, winner } = filled();
    expect(criteria.map(({ weight }) => weight)).toEqual([3 / 6, 2 / 6, 1 / 6]);
    // A: 100·(½·0.4 + ⅓·(0.5 + 0.5·8/30) + ⅙·511/600) = 55.31.
    expect(contenders.A?.score.low).toBeCloseTo(55.3055556, 6);
    expect(contenders.A?.score.high).toBeCloseTo(55.3055556, 6);
    expect(contenders.B?.score.low).toBeCloseTo(61.4166667, 6);
    // C without its surface: between 36.42 and 36.42 + 100/3.
    expect(contenders.C?.score.low).toBeCloseTo(36.4166667, 6);
    expect(contenders.C?.score.high).toBeCloseTo(69.75, 6);
    expect(contenders.C?.values.surface).toMatchObject({ value: null, utility: null });
    expect(contenders.C?.notes).toContain('surface: not known');
    expect(winner).toBe('B');
  });

  it('says how firm the order is, as two million draws by another program do', () => {
    const { contenders, pairwise_win_share: wins, doubt } = filled();
    const near = (found: number | undefined, truth: number) =>
      expect(Math.abs((found ?? NaN) - truth)).toBeLessThan(0.012);
    // numpy: normal, uniform and Dirichlet draws of the same card.
    near(contenders.A?.first_place_share ?? NaN, 0.1731);
    near(contenders.B?.first_place_share ?? NaN, 0.5981);
    near(contenders.C?.first_place_share ?? NaN, 0.2288);
    near(contenders.C?.rank_shares?.[2], 0.4977);
    near(wins.A?.B, 0.2236);
    near(wins.B?.C, 0.7403);
    near(doubt?.accuracy_mm, 0.1903);
    near(doubt?.surface, 0.2527);
    near(doubt?.weights, 0.0931);
    expect(doubt?.price).toBe(0);
  });

  it('is the same however the contenders are listed, and for the same seed', () => {
    const turned = filled({}, EVIDENCE, ['C', 'A', 'B']);
    const plain = filled();
    expect(turned.contenders.B).toEqual(plain.contenders.B);
    expect(turned.doubt).toEqual(plain.doubt);
    expect(turned.pairwise_win_share.C?.A).toBe(plain.pairwise_win_share.C?.A);
  });

  it('shares the places of those who score the same', () => {
    const same = { price: { A: known(300), B: known(300), C: known(900) } };
    const card = { criteria: [{ ...CARD.criteria[2]!, weight: 1 }] };
    const { contenders, pairwise_win_share, winner, doubt } = filled(card, same);
    expect(contenders.A?.rank_shares).toEqual([0.5, 0.5, 0]);
    expect(contenders.C?.rank_shares).toEqual([0, 0, 1]);
    expect(pairwise_win_share.A).toEqual({ B: 0.5, C: 1 });
    expect([winner, doubt]).toEqual(['A', { price: 0, weights: 0 }]);
  });

  it('counts a weight of 0 as nothing, whatever is drawn', () => {
    const criteria = CARD.criteria.map((one) => ({ ...one, weight: one.key === 'price' ? 1 : 0 }));
    const { contenders, doubt } = filled({ criteria });
    expect(contenders.A?.first_place_share).toBe(1);
    expect(doubt).toEqual({ accuracy_mm: 0, surface: 0, price: 0, weights: 0 });
  });
});

describe('gates', () => {
  it('put out whoever fails one, whatever the score', () => {
    const { contenders, pairwise_win_share, winner } = filled({
      gates: [
        { key: 'accuracy_mm', op: '<=', value: 0.06 },
        { key: 'price', op: '<=', value: 600 },
      ],
    });
    expect(contenders.B).toMatchObject({
      in: false,
      first_place_share: null,
      rank_shares: null,
      turning_price: null,
      gates: [{ passed: true }, { passed: false }],
    });
    expect(contenders.B?.notes).toContain('out: it fails a gate');
    expect(winner).toBe('C');
    expect(pairwise_win_share).toEqual({ C: {} });
    expect(contenders.C).toMatchObject({ in: true, first_place_share: 1 });
  });

  it('that cannot be judged put nobody out', () => {
    const { contenders } = filled({ gates: [{ key: 'surface', op: '>=', value: 75 }] });
    expect(contenders.C).toMatchObject({ in: true, gates: [{ passed: null }] });
  });

  it('where nobody is in leave nothing to draw', () => {
    const found = filled({ gates: [{ key: 'price', op: '<=', value: 1 }] });
    expect(found).toMatchObject({ winner: null, doubt: null, pairwise_win_share: {} });
    expect(found.notes).toEqual(['no contender passes the gates']);
  });

  it.each([
    [known(0.3), '<=', 0.1 + 0.2, true],
    [known(0.1 + 0.2), '<=', 0.3, true],
    [known(0.31), '<=', 0.3, false],
    [beyond('above'), '>=', 1e9, true],
    [beyond('below'), '>=', -1e9, false],
    [beyond('below'), '<=', -1e9, true],
    [beyond('fails'), '>=', 0, false],
    [beyond('fails'), '<=', 1e9, false],
    [undefined, '>=', 0, null],
  ] as const)('%j %s %d: %j', (evidence, op, value, passed) => {
    expect(passes({ key: 'x', op, value }, evidence)).toBe(passed);
  });
});

describe('what no number says', () => {
  const ladder = {
    criteria: [
      {
        key: 'limit:lantern/bridge',
        weight: 1,
        points: [
          [0, 0.3],
          [50, 1],
        ] as Curve,
      },
    ],
  };

  it('is worth nothing where the easiest is failed already', () => {
    const evidence = { 'limit:lantern/bridge': { A: known(50), B: beyond('fails') } };
    const { contenders } = filled(ladder, evidence, ['A', 'B']);
    expect(contenders.B?.values['limit:lantern/bridge']).toMatchObject({ value: null, utility: 0 });
    expect(contenders.B?.score).toEqual({ low: 0, high: 0 });
  });

  it('is worth what the end of the curve is where it lies beyond every number', () => {
    const evidence = { 'limit:lantern/bridge': { A: beyond('above'), B: beyond('below') } };
    const { contenders } = filled(ladder, evidence, ['A', 'B']);
    expect(contenders.A?.score.low).toBeCloseTo(100, 12);
    expect(contenders.B?.score.low).toBeCloseTo(30, 12);
  });
});

describe('the turning price', () => {
  const criteria: Card['criteria'] = [
    {
      key: 'accuracy_mm',
      weight: 1,
      points: [
        [0, 1],
        [0.1, 0],
      ],
    },
    {
      key: 'price',
      weight: 1,
      points: [
        [0, 1],
        [1000, 0],
      ],
    },
  ];
  const evidence = (a: number, b: number, priceA: number | null, priceB = 500) => ({
    accuracy_mm: { A: known(a), B: known(b) },
    price: { ...(priceA !== null && { A: known(priceA) }), B: known(priceB) },
  });

  it('is where its score equals the best other’s', () => {
    // B: ½·0.4 + ½·0.5 = 0.45. A: ½·0.6 + ½·u = 0.45 at u = 0.3: 700.
    const { contenders } = filled({ criteria }, evidence(0.04, 0.06, 300), ['A', 'B']);
    expect(contenders.A?.turning_price).toBeCloseTo(700, 5);
    // A: ½·0.6 + ½·0.7 = 0.65. B: 0.2 + ½·u = 0.65 at u = 0.9: 100.
    expect(contenders.B?.turning_price).toBeCloseTo(100, 5);
  });

  it('needs no price of its own, but all its other evidence', () => {
    const { contenders } = filled({ criteria }, evidence(0.04, 0.06, null), ['A', 'B']);
    expect(contenders.A?.turning_price).toBeCloseTo(700, 5);
    expect(filled().contenders.C?.notes).toContain(
      'turning price: some of its evidence is not known',
    );
  });

  it('is none where it wins at any price, or not even as a gift', () => {
    const cheap = filled({ criteria }, evidence(0, 0.1, 300, 1000), ['A', 'B']).contenders;
    expect(cheap.A?.turning_price).toBeNull();
    expect(cheap.A?.notes).toContain('turning price: at any price');
    const dear = filled({ criteria }, evidence(0, 0.1, 0), ['A', 'B']).contenders;
    expect(dear.B?.notes).toContain('turning price: not even as a gift');
  });

  it('without the price as a criterion, or without another, is none', () => {
    const alone = filled({ criteria }, evidence(0, 0.1, 300), ['A']).contenders;
    expect(alone.A?.notes).toContain('turning price: no other is in');
    const [first] = criteria;
    const without = filled({ criteria: [first!] }, evidence(0, 0.1, 300), ['A', 'B']).contenders;
    expect(without.A?.notes).toContain('turning price: the price is no criterion of this card');
  });

  it('where the price weighs nothing hangs on all else', () => {
    const weightless = [criteria[0]!, { ...criteria[1]!, weight: 0 }];
    const { A, B } = filled({ criteria: weightless }, evidence(0, 0.1, 300), ['A', 'B']).contenders;
    expect(A?.notes).toContain('turning price: at any price');
    expect(B?.notes).toContain('turning price: not even as a gift');
  });
});

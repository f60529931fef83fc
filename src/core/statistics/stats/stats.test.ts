import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  binomialUpperP,
  bitDraws,
  chiSquareQuantile,
  clopperPearson,
  combinationVariance,
  fUpperP,
  gammaDraws,
  leastSquares,
  median,
  meanOf,
  medianInPlace,
  oneSideInterval,
  percentile,
  poissonRate,
  sum,
  sumOf,
  sumOfSquares,
  tQuantile,
  tTwoSidedP,
  wilson,
  zQuantile,
} from '.';

describe('distributions, against printed tables', () => {
  it.each([
    [0.975, 1, 12.7062047],
    [0.975, 10, 2.2281389],
    [0.975, 30, 2.0422725],
    [0.95, 5, 2.0150484],
    [0.995, 3, 5.8409093],
  ])('t quantile %f with %f degrees of freedom', (p, df, expected) => {
    expect(tQuantile(p, df)).toBeCloseTo(expected, 6);
  });

  it('t quantile with a fraction of a degree of freedom gives back its probability', () => {
    // Simpson's rule over the density of t, written out from its definition.
    const df = 2.5;
    const gamma = (x: number): number =>
      x < 7
        ? gamma(x + 1) / x
        : Math.sqrt((2 * Math.PI) / x) *
          (x / Math.E) ** x *
          (1 + 1 / (12 * x) + 1 / (288 * x ** 2) - 139 / (51840 * x ** 3));
    const scale = gamma((df + 1) / 2) / (Math.sqrt(df * Math.PI) * gamma(df / 2));
    const density = (t: number) => scale * (1 + t ** 2 / df) ** (-(df + 1) / 2);
    const end = tQuantile(0.975, df);
    const steps = 4000;
    const h = end / steps;
    const terms = Array.from({ length: steps + 1 }, (_, at) => {
      const weight = at === 0 || at === steps ? 1 : at % 2 === 1 ? 4 : 2;
      return weight * density(at * h);
    });
    expect(0.5 + (h / 3) * sum(terms)).toBeCloseTo(0.975, 6);
  });

  it('upper tail of F at its printed 5 % point', () => {
    expect(fUpperP(3.7082648, 3, 10)).toBeCloseTo(0.05, 7);
    expect(fUpperP(0, 3, 10)).toBe(1);
  });

  it('chi square and normal quantiles', () => {
    expect(chiSquareQuantile(0.975, 12)).toBeCloseTo(23.3366642, 6);
    expect(zQuantile(0.975)).toBeCloseTo(1.959964, 6);
  });

  it('two-sided p of t = 2.2281389 with 10 degrees of freedom is 0.05', () => {
    expect(tTwoSidedP(2.2281389, 10)).toBeCloseTo(0.05, 7);
    expect(tTwoSidedP(-2.2281389, 10)).toBeCloseTo(0.05, 7);
  });
});

describe('rates', () => {
  it('Clopper–Pearson of 8 in 10, of 0 in 10 and of 10 in 10', () => {
    const some = clopperPearson(8, 10, 0.05);
    expect(some.low).toBeCloseTo(0.4439045, 6);
    expect(some.high).toBeCloseTo(0.9747893, 6);
    expect(clopperPearson(0, 10, 0.05)).toMatchObject({ low: 0, estimate: 0 });
    expect(clopperPearson(0, 10, 0.05).high).toBeCloseTo(0.3084971, 6);
    expect(clopperPearson(10, 10, 0.05).high).toBe(1);
  });

  it('Wilson of 8 in 10', () => {
    const interval = wilson(8, 10, 0.05);
    expect(interval.low).toBeCloseTo(0.4901625, 6);
    expect(interval.high).toBeCloseTo(0.9433178, 6);
  });

  it('exact Poisson limits of 5 and of 0 events, as printed for radiation counts', () => {
    const five = poissonRate(5, 1, 0.05);
    expect(five.low).toBeCloseTo(1.623486, 5);
    expect(five.high).toBeCloseTo(11.668332, 5);
    const none = poissonRate(0, 1, 0.05);
    expect(none.low).toBe(0);
    expect(none.high).toBeCloseTo(3.688879, 5);
  });

  it('says why nothing is known of no trials and no hours', () => {
    expect(clopperPearson(0, 0, 0.05)).toMatchObject({ estimate: null, notes: ['no trials'] });
    expect(poissonRate(0, 0, 0.05)).toMatchObject({ estimate: null, notes: ['no hours'] });
  });
});

describe('summaries', () => {
  it('percentile of type 7', () => {
    expect(percentile([10, 1, 3, 2, 4], 0.95)).toBeCloseTo(8.8, 12);
    expect(median([4, 1, 3, 2])).toBe(2.5);
    expect(medianInPlace(Float64Array.of(4, 1, 3, 2))).toBe(2.5);
    expect(() => medianInPlace(new Float64Array())).toThrow(RangeError);
    expect(() => percentile([], 0.5)).toThrow(RangeError);
  });

  it('the median of many values is the one a sorted list has in its middle', () => {
    const values = fc.array(
      fc.oneof(fc.integer({ min: 0, max: 3 }), fc.double({ noNaN: true, min: -1e9, max: 1e9 })),
      { minLength: 1, maxLength: 60 },
    );
    fc.assert(
      fc.property(values, (list) => {
        const sorted = list.toSorted((a, b) => a - b);
        const [below = 0, above = 0] = [
          sorted[Math.ceil(list.length / 2) - 1],
          sorted[Math.floor(list.length / 2)],
        ];
        expect(medianInPlace(Float64Array.from(list))).toBeCloseTo((below + above) / 2, 5);
      }),
    );
  });

  it('sums without losing small terms', () => {
    expect(sum([1e16, 1, -1e16])).toBe(1);
    expect(sumOf([{ mm: 1e16 }, { mm: 1 }, { mm: -1e16 }], ({ mm }) => mm)).toBe(1);
    expect(sumOf([], () => 1)).toBe(0);
    expect(meanOf(['a', 'abc', 'ab'], (text) => text.length)).toBe(2);
    expect(() => meanOf([], () => 1)).toThrow(RangeError);
  });

  it('has squares about the mean, however far from nothing that lies', () => {
    // Of 1, 2, 3, 4, 5: 4 + 1 + 0 + 1 + 4.
    expect(sumOfSquares([1, 2, 3, 4, 5])).toBe(10);
    expect(sumOfSquares([1, 2, 3, 4, 5].map((value) => value + 1e9))).toBe(10);
    expect(sumOfSquares([7])).toBe(0);
  });
});

describe('least squares', () => {
  // NIST Statistical Reference Datasets, NoInt1: y = b·x, certified values.
  const x = [60, 61, 62, 63, 64, 65, 66, 67, 68, 69, 70];
  const y = [130, 131, 132, 133, 134, 135, 136, 137, 138, 139, 140];

  it('agrees with the certified values of NoInt1', () => {
    const fit = leastSquares([x], y);
    expect(fit?.coefficients[0]).toBeCloseTo(2.07438016528926, 11);
    expect(fit?.rss).toBeCloseTo(127.272727272727, 9);
    expect(fit && Math.sqrt(combinationVariance(fit, [1]))).toBeCloseTo(0.0165289256198347, 12);
  });

  it('refuses columns that say the same, and too few observations', () => {
    expect(leastSquares([x, x.map((value) => 3 * value)], y)).toBeNull();
    expect(
      leastSquares(
        [
          [1, 2],
          [2, 1],
        ],
        [1, 2],
      ),
    ).toBeNull();
  });
});

describe('one-side rule', () => {
  it('with one artefact is the ordinary t interval', () => {
    // Student's sleep data, group 2: mean 2.33, 95 % interval 0.8976775 … 3.7623225.
    const values = [1.9, 0.8, 1.1, 0.1, -0.1, 4.4, 5.5, 1.6, 4.6, 3.4];
    const interval = oneSideInterval(new Map([['f', values]]), 0.05);
    expect(interval.estimate).toBeCloseTo(2.33, 12);
    expect(interval.low).toBeCloseTo(0.8976775, 6);
    expect(interval.high).toBeCloseTo(3.7623225, 6);
  });

  it('counts every artefact the same, and borrows the scatter for a single print', () => {
    const values = new Map([
      ['a', [1, 3]],
      ['b', [10]],
    ]);
    const interval = oneSideInterval(values, 0.05);
    expect(interval.estimate).toBe(6);
    // s² = 2 with one degree of freedom for both: v = (2/2 + 2/1)/4 = 0.75,
    // df = 0.75²/((1² + 2²)/16) = 1.8.
    const half = tQuantile(0.975, 1.8) * Math.sqrt(0.75);
    expect(interval.high).toBeCloseTo(6 + half, 9);
  });

  it('has no interval where every artefact has one print', () => {
    const interval = oneSideInterval(
      new Map([
        ['a', [1]],
        ['b', [2]],
      ]),
      0.05,
    );
    expect(interval).toMatchObject({ estimate: 1.5, low: null, high: null });
    expect(interval.notes).toEqual(['one print per artefact and material: no interval']);
  });

  it('has ends at the estimate where nothing varies', () => {
    const interval = oneSideInterval(new Map([['a', [2, 2, 2]]]), 0.05);
    expect(interval).toMatchObject({ estimate: 2, low: 2, high: 2 });
  });
});

describe('whole numbers drawn by their bits', () => {
  it('are the same for a seed, within their range, and all as likely', () => {
    const [one, other] = [bitDraws(4, 1), bitDraws(4, 1)];
    const counts = Array.from({ length: 16 }, () => 0);
    for (let at = 0; at < 32_000; at += 1) {
      const value = one();
      expect(value).toBe(other());
      counts[value] = (counts[value] ?? 0) + 1;
    }
    expect(counts.reduce((sum, count) => sum + count, 0)).toBe(32_000);
    // χ² with 15 degrees of freedom is above 37.7 once in a thousand times.
    const square = counts.reduce((sum, count) => sum + (count - 2000) ** 2 / 2000, 0);
    expect(square).toBeLessThan(37.7);
  });
});

describe('gamma draws', () => {
  it('have the mean and the variance of their shape', () => {
    const draw = gammaDraws(4, 3);
    const values = Array.from({ length: 20_000 }, draw);
    const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
    const variance = values.reduce((sum, value) => sum + (value - mean) ** 2, 0) / values.length;
    // Both are the shape; their standard errors here are 0.014 and 0.07.
    expect(mean).toBeCloseTo(4, 0);
    expect(Math.abs(mean - 4)).toBeLessThan(0.06);
    expect(Math.abs(variance - 4)).toBeLessThan(0.3);
  });
});

describe('the upper tail of the binomial', () => {
  it.each([
    // Tables: P(X ≥ 5) of 10 at 1/3; P(X ≥ 12) of 20 at 1/2; all of 3 at 1/2; any at all.
    [5, 10, 1 / 3, 0.2131281],
    [12, 20, 0.5, 0.2517223],
    [3, 3, 0.5, 0.125],
    [0, 3, 0.5, 1],
  ])('P(X ≥ %d) of %d at %d', (k, n, p, truth) => {
    expect(binomialUpperP(k, n, p)).toBeCloseTo(truth, 7);
  });
});

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { seededDraws } from '../../statistics/stats';
import { blurred } from './blur';
import { componentsOf } from './components';
import { encoded, linear, luminanceOf, measurePhoto, type Raster } from './index';
import { smoothed, vertexOffset } from './profile';

/** A region drawn point by point; x and y are the middles of the pixels, mm. */
function drawn(
  width: number,
  height: number,
  px_per_mm: number,
  of: (x: number, y: number) => number,
): Raster {
  const data = new Float64Array(width * height);
  for (let row = 0; row < height; row += 1) {
    for (let column = 0; column < width; column += 1) {
      data[row * width + column] = of((column + 0.5) / px_per_mm, (row + 0.5) / px_per_mm);
    }
  }
  return { width, height, data };
}

/** Standard normal draws after Box and Muller. */
function normals(seed: number): () => number {
  const draws = seededDraws(seed);
  return () =>
    Math.sqrt(-2 * Math.log(1 - draws.uniform())) * Math.cos(2 * Math.PI * draws.uniform());
}

describe('relative luminance', () => {
  it('linearises sRGB as its standard says', () => {
    expect(linear(0)).toBe(0);
    expect(linear(1)).toBe(1);
    // IEC 61966-2-1: mid grey 119/255 is 0.1845; the two branches meet at 0.04045.
    expect(linear(119 / 255)).toBeCloseTo(0.18447, 5);
    expect(linear(0.04045)).toBeCloseTo(0.0031308, 6);
    fc.assert(
      fc.property(fc.double({ min: 0, max: 1, noNaN: true }), (value) => {
        expect(encoded(linear(value))).toBeCloseTo(value, 9);
      }),
    );
  });

  it('weighs colours after Rec. 709 and drops transparency', () => {
    const of = (channels: number, ...data: number[]) =>
      luminanceOf({ width: 1, height: 1, channels, data: Uint8Array.from(data) }).data[0];
    expect(of(3, 255, 0, 0)).toBeCloseTo(0.2126, 12);
    expect(of(3, 0, 255, 0)).toBeCloseTo(0.7152, 12);
    expect(of(4, 0, 0, 255, 0)).toBeCloseTo(0.0722, 12);
    expect(of(1, 119)).toBeCloseTo(of(3, 119, 119, 119) ?? Number.NaN, 12);
    expect(of(2, 119, 7)).toBe(of(1, 119));
  });

  it('of 16 bits is as fine as they are', () => {
    const of = (value: number) =>
      luminanceOf({ width: 1, height: 1, channels: 1, data: Uint16Array.of(value) }).data[0];
    expect(of(65_535)).toBe(1);
    expect(of(257 * 119)).toBeCloseTo(linear(119 / 255), 12);
    expect((of(30_001) ?? 0) - (of(30_000) ?? 0)).toBeGreaterThan(0);
  });
});

describe('tools', () => {
  it('a parabola through three values has its vertex where it was put', () => {
    for (const at of [-0.4, 0, 0.3]) {
      const value = (x: number) => 5 - (x - at) ** 2;
      expect(vertexOffset(value(-1), value(0), value(1))).toBeCloseTo(at, 12);
    }
    expect(vertexOffset(1, 1, 1)).toBe(0);
  });

  it('a blur leaves what is even as it is, whatever is left out', () => {
    const weights = Float64Array.from({ length: 400 }, (_, at) => (at % 7 === 0 ? 0 : 1));
    for (const [sigma, digits] of [
      [2.5, 12],
      [7, 9],
    ] as const) {
      for (const own of [weights, null]) {
        for (const value of blurred(new Float64Array(400).fill(3), own, 20, sigma)) {
          expect(value).toBeCloseTo(3, digits);
        }
      }
    }
    for (const value of smoothed(new Float64Array(50).fill(3), 4)) expect(value).toBeCloseTo(3, 12);
  });

  it.each([
    { sigma: 1.5, period: 12 },
    { sigma: 4, period: 25 },
    { sigma: 6, period: 21 },
    { sigma: 15, period: 70 },
    { sigma: 41.3, period: 150 },
  ])('a blur of $sigma pixels dampens a wave by exp(−2π²σ²f²)', ({ sigma, period }) => {
    const [length, lines] = [800, 5];
    const wave = Float64Array.from({ length }, (_, at) => Math.sin((2 * Math.PI * at) / period));
    const values = new Float64Array(lines * length);
    for (let row = 0; row < lines; row += 1) values.set(wave, row * length);
    const expected = Math.exp(-2 * Math.PI ** 2 * (sigma / period) ** 2);
    const along = blurred(values, null, length, sigma);
    const down = blurred(
      values.map((_, at) => wave[Math.floor(at / lines)] ?? 0),
      null,
      lines,
      sigma,
    );
    for (let at = 260; at < 540; at += 1) {
      expect(along[2 * length + at]).toBeCloseTo(expected * (wave[at] ?? 0), 7);
      expect(down[at * lines + 2]).toBeCloseTo(expected * (wave[at] ?? 0), 7);
    }
  });

  it('a blur of any width is the mean of all that counts, weighted by distance', () => {
    const width = 37;
    const random = fc.sample(fc.double({ min: 0, max: 1, noNaN: true }), {
      numRuns: width * 23,
      seed: 5,
    });
    const values = Float64Array.from(random);
    const holes = values.map((value) => (value < 0.2 ? 0 : 1));
    for (const sigma of [0.3, 2, 4.99, 5, 9.3, 17, 60]) {
      for (const weights of [null, holes]) {
        const out = blurred(values, weights, width, sigma);
        for (const at of [0, 36, 17 * width + 4, 11 * width + 20, 22 * width + 36]) {
          if (weights && !weights[at]) continue;
          let [total, weight] = [0, 0];
          values.forEach((value, other) => {
            const dx = (other % width) - (at % width);
            const dy = Math.floor(other / width) - Math.floor(at / width);
            const own = Math.exp(-(dx * dx + dy * dy) / (2 * sigma ** 2)) * (weights?.[other] ?? 1);
            total += own * value;
            weight += own;
          });
          expect(out[at]).toBeCloseTo(total / weight, 7);
        }
      }
    }
  });

  it('pixels that touch by a corner are of one component', () => {
    const picture = ['#..#', '.#..', '....', '###.'];
    const mask = Uint8Array.from(picture.join(''), (sign) => (sign === '#' ? 1 : 0));
    const { components } = componentsOf(mask, 4);
    expect(components).toEqual([
      { pixels: 2, left: 0, right: 1 },
      { pixels: 1, left: 3, right: 3 },
      { pixels: 3, left: 0, right: 2 },
    ]);
  });
});

const S = 20;

describe('layer lines', () => {
  const wall = (spacing: number, contrast: number, more: (y: number) => number = () => 0) =>
    drawn(
      40,
      400,
      S,
      (_, y) => 0.4 * (1 + contrast * Math.cos((2 * Math.PI * y) / spacing) + more(y)),
    );

  it.each([0.2, 0.28, 0.31])('%d mm apart are found, with and without their height', (spacing) => {
    for (const layer_height_mm of [null, 0.25]) {
      const { values } = measurePhoto('layer-lines', wall(spacing, 0.1), {
        px_per_mm: S,
        layer_height_mm,
      });
      expect(values.line_spacing_mm).toBeCloseTo(spacing, 4);
      expect(values.line_contrast).toBeCloseTo(0.1, 3);
      expect(values.spacing_sd_mm).toBeLessThan(2e-3);
    }
  });

  it('a banding of several layers is told beside them', () => {
    // 0.05·cos has rms 0.0354; its period 2.5 mm fits eight times into 20 mm, lines 0.25 mm 80 times.
    const banded = wall(0.25, 0.1, (y) => 0.05 * Math.cos((2 * Math.PI * y) / 2.5));
    const { values } = measurePhoto('layer-lines', banded, { px_per_mm: S, layer_height_mm: 0.25 });
    expect(values.banding_contrast).toBeCloseTo(0.05 / Math.SQRT2, 3);
    expect(values.banding_ratio).toBeCloseTo(0.5, 2);
    const even = measurePhoto('layer-lines', wall(0.25, 0.1), { px_per_mm: S });
    expect(even.values.banding_contrast).toBeLessThan(1e-3);
  });

  it('uneven light over the wall is no banding', () => {
    const shaded = wall(0.25, 0.1, (y) => 0.02 * y - 0.0008 * y * y);
    const { values } = measurePhoto('layer-lines', shaded, { px_per_mm: S });
    expect(values.banding_contrast).toBeLessThan(2e-3);
    expect(values.line_spacing_mm).toBeCloseTo(0.25, 4);
  });

  it('distances that alternate have their scatter', () => {
    // Lines at 0.27 and 0.33 mm in turn: sd about 0.03 mm.
    const places = Array.from({ length: 67 }, (_, at) => 0.3 * at + (at % 2) * 0.03);
    const line = (y: number) =>
      places.reduce((sum, place) => sum + Math.exp(-(((y - place) / 0.06) ** 2)), 0);
    const { values } = measurePhoto(
      'layer-lines',
      drawn(20, 800, 40, (_, y) => 0.3 + 0.2 * line(y)),
      { px_per_mm: 40, layer_height_mm: 0.3 },
    );
    expect(values.line_spacing_mm).toBeCloseTo(0.3, 3);
    expect(values.spacing_sd_mm as number).toBeGreaterThan(0.02);
    expect(values.spacing_sd_mm as number).toBeLessThan(0.04);
  });

  it.each([
    [
      'lines of less than 4 pixels',
      drawn(40, 400, S, (_, y) => 1 + 0.1 * Math.cos((2 * Math.PI * y) / 0.15)),
      0.15,
    ],
    ['fewer than six of them', drawn(40, 90, S, (_, y) => 1 + 0.1 * Math.cos(2 * Math.PI * y)), 1],
    ['an even face', drawn(40, 400, S, () => 0.5), 0.2],
    ['a black one', drawn(40, 400, S, () => 0), 0.2],
  ])('%s are not resolved', (_, raster, layer_height_mm) => {
    const found = measurePhoto('layer-lines', raster, { px_per_mm: S, layer_height_mm });
    expect(Object.values(found.values)).toEqual([null, null, null, null, null]);
    expect(found.notes).toContain('lines are not resolved');
  });
});

describe('ringing', () => {
  const wall = (
    { amplitude = 0.02, lambda = 1.6, tau = 3, noise = 0, seed = 1, width = 240, height = 96 } = {},
    light: (x: number) => number = () => 0,
  ) => {
    const normal = normals(seed);
    const wave = (x: number) =>
      amplitude * Math.exp(-x / tau) * Math.cos((2 * Math.PI * x) / lambda + 0.7);
    return drawn(width, height, S, (x) => 0.4 * Math.exp(light(x) + wave(x) + noise * normal()));
  };
  const measured = (raster: Raster, speed_mm_s: number | null = null) =>
    measurePhoto('ringing', raster, { px_per_mm: S, speed_mm_s });

  it('without noise is found as it was drawn, in uneven light too', () => {
    for (const light of [() => 0, (x: number) => 0.1 - 0.03 * x + 0.002 * x ** 3]) {
      const { values } = measured(wall({}, light), 160);
      expect(values).toMatchObject({ found: true, p: 0, detectable_amplitude: 0 });
      expect(values.wavelength_mm).toMatchObject({ estimate: expect.closeTo(1.6, 6) as number });
      expect(values.amplitude).toMatchObject({ estimate: expect.closeTo(0.02, 7) as number });
      expect(values.decay_mm).toBeCloseTo(3, 5);
      expect(values.frequency_hz).toBeCloseTo(100, 4);
      // 12 mm of region hold 7.5 waves of 1.6 mm.
      expect(values.waves).toBeCloseTo(7.5, 5);
    }
  });

  it('in noise is found within its interval', () => {
    let inside = 0;
    for (let seed = 1; seed <= 20; seed += 1) {
      const { values } = measured(wall({ noise: 0.05, seed, amplitude: 0.06 }));
      expect(values.found, `seed ${seed}`).toBe(true);
      const { low, high } = values.wavelength_mm as { low: number; high: number };
      if (low <= 1.6 && 1.6 <= high) inside += 1;
    }
    // 95 % of 20: fewer than 15 have a probability of 3e-4.
    expect(inside).toBeGreaterThanOrEqual(15);
  });

  it('false alarms stay at the error probability of the test', () => {
    let alarms = 0;
    const trials = 100;
    for (let seed = 1; seed <= trials; seed += 1) {
      const raster = wall({ amplitude: 0, noise: 0.05, seed: 1000 + seed, width: 80, height: 24 });
      if ((measured(raster).values.p as number) < 0.05) alarms += 1;
    }
    // Binomial(100, 0.05): more than 12 has a probability of 0.15 %.
    expect(alarms).toBeLessThanOrEqual(12);
  });

  it('noise without a wave says how strong one would have to be', () => {
    const { values, notes } = measured(wall({ amplitude: 0, noise: 0.05, seed: 3 }));
    expect(values).toMatchObject({
      found: false,
      wavelength_mm: null,
      amplitude: null,
      waves: null,
    });
    expect(values.detectable_amplitude as number).toBeGreaterThan(0);
    expect(notes).toEqual(['not above the noise']);
    // What is said to be seen just so is seen well at six times as much.
    const amplitude = 6 * (values.detectable_amplitude as number);
    expect(measured(wall({ amplitude, noise: 0.05, seed: 4 })).values.found).toBe(true);
  });

  it('one bump is no ringing', () => {
    const { values, notes } = measured(
      wall({ amplitude: 0.4, lambda: 3.5, tau: 1.75, noise: 0.25 }),
    );
    expect(values.found).toBe(false);
    expect(notes[0]).toContain('not told from shading');
  });

  it('a face that is perfectly even has none, p 1', () => {
    expect(measured(wall({ amplitude: 0 })).values).toMatchObject({ p: 1, found: false });
  });

  it.each([
    ['7 rows', { height: 7 }],
    ['11 columns', { width: 11 }],
    ['a width of less than three of the shortest waves', { width: 17 }],
  ])('%s are too small', (_, size) => {
    const found = measured(wall(size));
    expect(Object.values(found.values).every((value) => value === null)).toBe(true);
    expect(found.notes).toEqual(['the region is too small for ringing']);
  });
});

describe('strings', () => {
  /** A background that fades downwards, and horizontal strands of three rows at some heights. */
  const field = (strands: number[], { width = 100, height = 90, length = 100 } = {}) =>
    drawn(width, height, 1, (x, y) => {
      const isStrand = strands.some((top) => y > top && y < top + 3) && x < length;
      return isStrand ? 0.9 : 0.3 + 0.001 * y;
    });
  const of = (raster: Raster) => measurePhoto('strings', raster, { px_per_mm: 1 });

  it('are counted, with the share that they cover', () => {
    expect(of(field([10, 40, 70])).values).toEqual({
      coverage_share: expect.closeTo(9 / 90, 12) as number,
      strands: 3,
      densest: 3,
    });
    expect(of(field([])).values).toEqual({ coverage_share: 0, strands: 0, densest: 0 });
  });

  it('the median is over columns, and the densest counts', () => {
    const raster = field([10, 40]);
    for (let row = 70; row < 72; row += 1)
      for (let x = 0; x < 30; x += 1) raster.data[row * 100 + x] = 0.9;
    expect(of(raster).values).toMatchObject({ strands: 2, densest: 3 });
  });

  it('what spans less than a tenth of the width is none', () => {
    expect(of(field([10], { length: 9 })).values).toMatchObject({ coverage_share: 0, densest: 0 });
    expect(of(field([10], { length: 10 })).values).toMatchObject({ densest: 1 });
  });

  it('a column without background is left out, and said', () => {
    const raster = field([10]);
    for (let row = 0; row < 90; row += 1) {
      // Two thirds of five columns are far from any parabola through their medians.
      for (let x = 50; x < 55; x += 1)
        raster.data[row * 100 + x] = row % 3 === 0 ? 0.1 : row % 3 === 1 ? 0.9 : 0.5;
    }
    const { values, notes } = of(raster);
    expect(notes).toEqual(['columns without a background, left out: 5']);
    expect(values.coverage_share).toBeCloseTo(3 / 90, 12);
  });

  it('fewer than nine rows have no background', () => {
    expect(of(field([], { height: 8 })).values.coverage_share).toBeNull();
  });
});

describe('gaps and texture', () => {
  const face = (of: (x: number, y: number) => number = () => 0.5) => drawn(160, 120, S, of);
  const isGap = (x: number, y: number) =>
    (x > 2 && x < 3 && y > 2 && y < 2.5) || (x > 5 && x < 5.2 && y > 3 && y < 3.2);

  it('are found with their areas', () => {
    const { values } = measurePhoto(
      'gaps',
      face((x, y) => (isGap(x, y) ? 0.1 : 0.5)),
      { px_per_mm: S },
    );
    // 0.5 mm² and 0.04 mm² of 48.
    expect(values.gap_count).toBe(2);
    expect(values.largest_mm2).toBeCloseTo(0.5, 12);
    expect(values.gap_share).toBeCloseTo(0.54 / 48, 12);
    expect(values.ripple_contrast).toBeCloseTo(0, 9);
  });

  it('specks are no gaps, nor is what is only a little darker', () => {
    const speck = (x: number, y: number) => x > 2 && x < 2.1 && y > 2 && y < 2.15;
    const found = (dark: (x: number, y: number) => boolean, value: number) =>
      measurePhoto(
        'gaps',
        face((x, y) => (dark(x, y) ? value : 0.5)),
        { px_per_mm: S },
      ).values;
    expect(found(speck, 0.1)).toMatchObject({ gap_count: 0, gap_share: 0, largest_mm2: 0 });
    expect(found(isGap, 0.4)).toMatchObject({ gap_count: 0 });
  });

  it('a ripple of 0.7 mm passes by the two blurs’ difference', () => {
    // exp(−2π²σ²f²) with σ = P/(2π)·√(2 ln 2): 2^(−(P·f)²); P = 0.2 and 2, f = 1/0.7.
    const share = 2 ** -((0.2 / 0.7) ** 2) - 2 ** -((2 / 0.7) ** 2);
    const wave = drawn(700, 40, S, (x) => 0.5 * (1 + 0.1 * Math.sin((2 * Math.PI * x) / 0.7)));
    const { values } = measurePhoto('texture', wave, { px_per_mm: S });
    expect(values.texture_contrast).toBeCloseTo((0.1 * share) / Math.SQRT2, 3);
  });

  it('an even face has no texture, a black one none that is known', () => {
    const of = (value: number) =>
      measurePhoto(
        'texture',
        face(() => value),
        { px_per_mm: S },
      );
    expect(of(0.5).values.texture_contrast).toBeCloseTo(0, 12);
    expect(of(0)).toEqual({ values: { texture_contrast: null }, notes: ['the region is black'] });
  });
});

describe('a measure', () => {
  it.each([0, -1, Number.NaN, Infinity])('of a scale of %d is refused', (px_per_mm) => {
    const raster = drawn(20, 20, 1, () => 0.5);
    expect(() => measurePhoto('texture', raster, { px_per_mm })).toThrow(RangeError);
  });

  it('of any region never throws, however small', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('layer-lines', 'ringing', 'strings', 'gaps', 'texture'),
        fc.integer({ min: 1, max: 30 }),
        fc.integer({ min: 1, max: 30 }),
        fc.double({ min: 0.1, max: 60, noNaN: true }),
        fc.nat(),
        (measure, width, height, px_per_mm, seed) => {
          const draws = seededDraws(seed);
          const raster = drawn(width, height, 1, () => Math.round(255 * draws.uniform()) / 255);
          const { values } = measurePhoto(measure, raster, { px_per_mm });
          for (const value of Object.values(values)) {
            if (typeof value === 'number') expect(Number.isFinite(value)).toBe(true);
          }
        },
      ),
    );
  });
});

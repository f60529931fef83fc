import { tQuantile, type Interval } from '../../statistics/stats';
import type { Measured, MeasureOptions } from './measured';
import { dot, polynomials, takeOut } from './profile';
import { columnMeans, type Raster } from './raster';

const BANDS = 8;
const FEWEST_ROWS = 8;
const FEWEST_COLUMNS = 12;
const TREND_DEGREE = 4;
/** The error probability of the test. */
const RINGING_ALPHA = 0.05;
/** What repeats less often is not told from shading. */
const FEWEST_WAVES = 1.5;

const NOTHING: Measured['values'] = {
  wavelength_mm: null,
  decay_mm: null,
  amplitude: null,
  frequency_hz: null,
  waves: null,
  p: null,
  detectable_amplitude: null,
  found: null,
};

/**
 * Ringing behind an edge: a wave that dies away, at the same place in every layer. The region begins
 * where the edge's own rounding has ended, and runs away from it along +x.
 *
 * A damped wave beside a polynomial trend is fitted to the logarithm of the rows' mean; whether it is
 * there at all is tested by how well eight bands of rows agree on it (Hotelling's T²), corrected for
 * the frequencies that were searched (Šidák).
 */
export function ringing(
  raster: Raster,
  { px_per_mm, speed_mm_s = null }: MeasureOptions,
): Measured {
  const { width, height } = raster;
  const W = width / px_per_mm;
  const lambdaMin = Math.max(4 / px_per_mm, 0.3);
  const lambdaMax = W / 3;
  if (height < FEWEST_ROWS || width < FEWEST_COLUMNS || lambdaMax <= lambdaMin) {
    return { values: NOTHING, notes: ['the region is too small for ringing'] };
  }
  const bands = Array.from({ length: BANDS }, (_, k) => {
    const from = Math.floor((k * height) / BANDS);
    const to = Math.floor(((k + 1) * height) / BANDS);
    return columnMeans(raster, from, to).map(Math.log);
  });
  if (bands.some((band) => band.some((value) => !Number.isFinite(value)))) {
    return { values: NOTHING, notes: ['a part of the region is black: no ringing can be told'] };
  }
  const search = new WaveSearch(width, px_per_mm, { lambdaMin, lambdaMax, tauMax: 4 * W });
  const start = search.coarse(averaged(bands));
  const best = search.refined(averaged(bands), start);
  const waves = bands.map((band) => search.wave(band, best));
  const amplitude = amplitudeOf(waves);
  const frequencies = 1 + Math.floor(W * (1 / lambdaMin - 1 / lambdaMax) + 1e-12);
  const { p, detectable } = testOf(waves, amplitude, frequencies);
  const length = detectable > 0 ? best.tau * Math.log(amplitude / detectable) : W;
  const periods = Math.max(0, Math.min(length, W)) / best.lambda;
  const isThere = p < RINGING_ALPHA;
  const found = isThere && periods >= FEWEST_WAVES;
  if (!found) {
    return {
      values: { ...NOTHING, p, detectable_amplitude: detectable, found },
      notes: isThere
        ? [`it repeats less than ${FEWEST_WAVES} times: not told from shading`]
        : ['not above the noise'],
    };
  }
  const without = bands.map((_, left) => {
    const rest = bands.filter((__, k) => k !== left);
    const own = search.refined(averaged(rest), best);
    return {
      lambda: own.lambda,
      amplitude: amplitudeOf(rest.map((band) => search.wave(band, own))),
    };
  });
  return {
    values: {
      wavelength_mm: jackknife(
        best.lambda,
        without.map((one) => one.lambda),
      ),
      decay_mm: best.tau,
      amplitude: jackknife(
        amplitude,
        without.map((one) => one.amplitude),
      ),
      frequency_hz: speed_mm_s === null ? null : speed_mm_s / best.lambda,
      waves: periods,
      p,
      detectable_amplitude: detectable,
      found,
    },
    notes: [],
  };
}

/** A damped wave's shape, mm. */
interface Shape {
  lambda: number;
  tau: number;
}

/** A shape's cosine and sine beside the trend, and unit vectors along them at right angles. */
interface Directions {
  c: Float64Array;
  s: Float64Array;
  u: Float64Array;
  v: Float64Array;
}

/** Strength of a wave as cosine and sine. */
type Wave = readonly [cosine: number, sine: number];

function averaged(bands: readonly Float64Array[]): Float64Array {
  const [first = new Float64Array()] = bands;
  return Float64Array.from(
    first,
    (_, at) => bands.reduce((sum, band) => sum + (band[at] ?? 0), 0) / bands.length,
  );
}

function amplitudeOf(waves: readonly Wave[]): number {
  const [a, b] = meanWave(waves);
  return Math.hypot(a, b);
}

const meanWave = (waves: readonly Wave[]): Wave => [
  waves.reduce((sum, [a]) => sum + a, 0) / waves.length,
  waves.reduce((sum, [, b]) => sum + b, 0) / waves.length,
];

/** Whether the bands agree on a wave: p for all frequencies searched, and what would just be seen. */
function testOf(
  waves: readonly Wave[],
  amplitude: number,
  frequencies: number,
): { p: number; detectable: number } {
  const K = waves.length;
  const [a, b] = meanWave(waves);
  let [saa, sab, sbb] = [0, 0, 0];
  for (const [own, other] of waves) {
    saa += (own - a) ** 2 / (K - 1);
    sab += ((own - a) * (other - b)) / (K - 1);
    sbb += (other - b) ** 2 / (K - 1);
  }
  const determinant = saa * sbb - sab * sab;
  const hasNoScatter = Math.sqrt(saa + sbb) <= 1e-9 * Math.max(amplitude, 1e-3);
  if (hasNoScatter || !(determinant > 0)) return { p: amplitude < 1e-9 ? 1 : 0, detectable: 0 };
  const t2 = (K * (a * a * sbb - 2 * a * b * sab + b * b * saa)) / determinant;
  const f = (t2 * (K - 2)) / (2 * (K - 1));
  // With two degrees of freedom above, the tail of F has a closed form.
  const half = (K - 2) / 2;
  const single = (1 + f / half) ** -half;
  const p = -Math.expm1(frequencies * Math.log1p(-single));
  const singleAlpha = -Math.expm1(Math.log1p(-RINGING_ALPHA) / frequencies);
  const fAlpha = half * (singleAlpha ** (-1 / half) - 1);
  const t2Alpha = (fAlpha * 2 * (K - 1)) / (K - 2);
  return { p, detectable: amplitude * Math.sqrt(t2Alpha / t2) };
}

function jackknife(estimate: number, without: readonly number[]): Interval {
  const K = without.length;
  const mean = without.reduce((sum, value) => sum + value, 0) / K;
  const squares = without.reduce((sum, value) => sum + (value - mean) ** 2, 0);
  const half = tQuantile(1 - RINGING_ALPHA / 2, K - 1) * Math.sqrt(((K - 1) / K) * squares);
  return { estimate, low: estimate - half, high: estimate + half };
}

const LAMBDA_STEP = 1.02;
const TAU_STEP = 1.5;
const PRECISION = 1e-10;
const MOST_TURNS = 500;

/** Fits damped waves beside a trend to profiles of one width. */
class WaveSearch {
  /** Places of the pixels' middles, mm. */
  readonly #x: Float64Array;
  readonly #trend: readonly Float64Array[];
  /** The directions of the shape asked for last. */
  #known: (Shape & { directions: Directions }) | null = null;

  constructor(
    readonly width: number,
    px_per_mm: number,
    readonly limits: { lambdaMin: number; lambdaMax: number; tauMax: number },
  ) {
    this.#x = Float64Array.from({ length: width }, (_, at) => (at + 0.5) / px_per_mm);
    this.#trend = polynomials(width, TREND_DEGREE);
  }

  /**
   * The best pair of a grid over all shapes. A wave's part along the trend is taken out of its
   * products in place of itself: exact enough to begin with, and one pass a shape.
   */
  coarse(profile: Float64Array): Shape {
    const { lambdaMin, lambdaMax, tauMax } = this.limits;
    const own = this.#withoutTrend(profile);
    const cosine = new Float64Array(this.width);
    const sine = new Float64Array(this.width);
    let best: Shape & { gain: number } = { lambda: lambdaMin, tau: lambdaMin, gain: -1 };
    for (const lambda of grid(lambdaMin, lambdaMax, LAMBDA_STEP)) {
      for (let at = 0; at < this.width; at += 1) {
        const phase = (2 * Math.PI * (this.#x[at] ?? 0)) / lambda;
        cosine[at] = Math.cos(phase);
        sine[at] = Math.sin(phase);
      }
      for (const tau of grid(lambda / 2, tauMax, TAU_STEP)) {
        const gain = this.#roughGain(own, cosine, sine, tau);
        if (gain > best.gain) best = { lambda, tau, gain };
      }
    }
    return { lambda: best.lambda, tau: best.tau };
  }

  /** The best shape near another one, within the limits. */
  refined(profile: Float64Array, start: Shape): Shape {
    const own = this.#withoutTrend(profile);
    const clamped = (lnLambda: number, lnTau: number): Shape => {
      const { lambdaMin, lambdaMax, tauMax } = this.limits;
      const lambda = Math.min(lambdaMax, Math.max(lambdaMin, Math.exp(lnLambda)));
      return { lambda, tau: Math.min(tauMax, Math.max(lambda / 2, Math.exp(lnTau))) };
    };
    let shape = start;
    let gain = this.#gain(own, shape);
    let damping = 1e-3;
    for (let turn = 0; turn < MOST_TURNS && damping < 1e12; turn += 1) {
      const step = this.#step(own, shape, damping);
      if (!step) break;
      const next = clamped(Math.log(shape.lambda) + step[0], Math.log(shape.tau) + step[1]);
      const nextGain = this.#gain(own, next);
      if (nextGain <= gain) {
        damping *= 10;
        continue;
      }
      const moved = Math.max(
        Math.abs(Math.log(next.lambda / shape.lambda)),
        1e-3 * Math.abs(Math.log(next.tau / shape.tau)),
      );
      [shape, gain] = [next, nextGain];
      damping = Math.max(1e-12, damping / 10);
      if (moved < PRECISION) break;
    }
    return shape;
  }

  /** How strong a wave of a shape is in a profile. */
  wave(profile: Float64Array, shape: Shape): Wave {
    return this.#waveOf(this.#withoutTrend(profile), shape);
  }

  #withoutTrend(profile: Float64Array): Float64Array {
    const out = Float64Array.from(profile);
    for (let times = 0; times < 2; times += 1) for (const one of this.#trend) takeOut(out, one);
    return out;
  }

  /** How much of a profile's squares a wave takes up, from the products of its damped parts. */
  #roughGain(own: Float64Array, cosine: Float64Array, sine: Float64Array, tau: number): number {
    const [t0, t1, t2, t3, t4] = this.#trend;
    if (!t0 || !t1 || !t2 || !t3 || !t4) return -1;
    let [cc, cs, ss, yc, ys] = [0, 0, 0, 0, 0];
    let [c0, c1, c2, c3, c4] = [0, 0, 0, 0, 0];
    let [s0, s1, s2, s3, s4] = [0, 0, 0, 0, 0];
    const first = this.#x[0] ?? 0;
    let envelope = Math.exp(-first / tau);
    const decay = Math.exp((-2 * first) / tau);
    // Beyond 1e-8 of its beginning nothing of a wave is left.
    const end = Math.min(this.width, Math.ceil((18.4 * tau) / (2 * first)) + 1);
    for (let at = 0; at < end; at += 1, envelope *= decay) {
      const c = envelope * (cosine[at] ?? 0);
      const s = envelope * (sine[at] ?? 0);
      const y = own[at] ?? 0;
      cc += c * c;
      cs += c * s;
      ss += s * s;
      yc += y * c;
      ys += y * s;
      c0 += c * (t0[at] ?? 0);
      s0 += s * (t0[at] ?? 0);
      c1 += c * (t1[at] ?? 0);
      s1 += s * (t1[at] ?? 0);
      c2 += c * (t2[at] ?? 0);
      s2 += s * (t2[at] ?? 0);
      c3 += c * (t3[at] ?? 0);
      s3 += s * (t3[at] ?? 0);
      c4 += c * (t4[at] ?? 0);
      s4 += s * (t4[at] ?? 0);
    }
    cc -= c0 * c0 + c1 * c1 + c2 * c2 + c3 * c3 + c4 * c4;
    cs -= c0 * s0 + c1 * s1 + c2 * s2 + c3 * s3 + c4 * s4;
    ss -= s0 * s0 + s1 * s1 + s2 * s2 + s3 * s3 + s4 * s4;
    const determinant = cc * ss - cs * cs;
    if (!(determinant > 1e-12 * cc * ss)) return -1;
    return (yc * yc * ss - 2 * yc * ys * cs + ys * ys * cc) / determinant;
  }

  /** Cosine and sine of a shape without the trend, and two unit vectors that span them. */
  #directions({ lambda, tau }: Shape): Directions {
    const known = this.#known;
    if (known?.lambda === lambda && known.tau === tau) return known.directions;
    const c = new Float64Array(this.width);
    const s = new Float64Array(this.width);
    for (let at = 0; at < this.width; at += 1) {
      const x = this.#x[at] ?? 0;
      const envelope = Math.exp(-x / tau);
      const phase = (2 * Math.PI * x) / lambda;
      c[at] = envelope * Math.cos(phase);
      s[at] = envelope * Math.sin(phase);
    }
    for (const one of this.#trend) {
      takeOut(c, one);
      takeOut(s, one);
    }
    const u = unit(c);
    const v = Float64Array.from(s);
    takeOut(v, u);
    takeOut(v, u);
    const directions = { c, s, u, v: unit(v) };
    this.#known = { lambda, tau, directions };
    return directions;
  }

  /** How much of a profile's squares a wave of a shape takes up. */
  #gain(own: Float64Array, shape: Shape): number {
    const { u, v } = this.#directions(shape);
    return dot(own, u) ** 2 + dot(own, v) ** 2;
  }

  /**
   * A damped step towards the best shape, in the logarithms of wavelength and decay: Gauss and
   * Newton's with the linear terms projected out.
   *
   * @see Kaufman, A variable projection method for solving separable nonlinear least squares
   *   problems, 1975
   */
  #step(own: Float64Array, shape: Shape, damping: number): readonly [number, number] | null {
    const { u, v } = this.#directions(shape);
    const [alpha, beta] = this.#waveOf(own, shape);
    const byLambda = new Float64Array(this.width);
    const byTau = new Float64Array(this.width);
    for (let at = 0; at < this.width; at += 1) {
      const x = this.#x[at] ?? 0;
      const envelope = Math.exp(-x / shape.tau);
      const phase = (2 * Math.PI * x) / shape.lambda;
      const [cos, sin] = [Math.cos(phase), Math.sin(phase)];
      byLambda[at] = envelope * phase * (alpha * sin - beta * cos);
      byTau[at] = envelope * (x / shape.tau) * (alpha * cos + beta * sin);
    }
    const residual = Float64Array.from(own);
    for (const vector of [byLambda, byTau]) for (const one of this.#trend) takeOut(vector, one);
    for (const vector of [byLambda, byTau, residual]) {
      takeOut(vector, u);
      takeOut(vector, v);
    }
    const [a, b, d] = [dot(byLambda, byLambda), dot(byLambda, byTau), dot(byTau, byTau)];
    const [g, h] = [dot(byLambda, residual), dot(byTau, residual)];
    const [ad, dd] = [a * (1 + damping), d * (1 + damping)];
    const determinant = ad * dd - b * b;
    if (!(determinant > 0)) return null;
    return [(g * dd - h * b) / determinant, (h * ad - g * b) / determinant];
  }

  #waveOf(own: Float64Array, shape: Shape): Wave {
    const { c, s, u, v } = this.#directions(shape);
    const sine = dot(own, v) / dot(s, v);
    return [(dot(own, u) - sine * dot(s, u)) / dot(c, u), sine];
  }
}

function unit(vector: Float64Array): Float64Array {
  const length = Math.sqrt(dot(vector, vector));
  return length > 0 ? vector.map((value) => value / length) : vector;
}

/** Values from one to another in equal ratios of at most `step`, both ends among them. */
function grid(from: number, to: number, step: number): number[] {
  if (!(to > from)) return [to];
  const steps = Math.ceil(Math.log(to / from) / Math.log(step));
  return Array.from({ length: steps + 1 }, (_, at) => from * (to / from) ** (at / steps));
}

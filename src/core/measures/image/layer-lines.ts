import FFT from 'fft.js';
import type { Measured, MeasureOptions } from './measured';
import { detrended, dot, orthonormal, smoothed, vertexOffset } from './profile';
import { rowMeans, type Raster } from './raster';

const FEWEST_PX = 4;
const FEWEST_SPACINGS = 6;
/** Without a layer height, lines are looked for from this period on, mm. */
const LONGEST_MM = 2;

const UNRESOLVED: Measured = {
  values: {
    line_spacing_mm: null,
    line_contrast: null,
    banding_contrast: null,
    banding_ratio: null,
    spacing_sd_mm: null,
  },
  notes: ['lines are not resolved'],
};

/**
 * How far the layers of a wall are apart, how strong their lines are, and how uneven: banding over
 * many layers, and the scatter of their distances. Layers are horizontal in the region.
 */
export function layerLines(
  raster: Raster,
  { px_per_mm, layer_height_mm = null }: MeasureOptions,
): Measured {
  const means = rowMeans(raster);
  const mean = means.reduce((sum, value) => sum + value, 0) / means.length;
  if (!(mean > 0)) return UNRESOLVED;
  const profile = detrended(
    means.map((value) => value / mean - 1),
    2,
  );
  const nyquist = px_per_mm / 2;
  const range =
    layer_height_mm === null
      ? ([1 / LONGEST_MM, 0.8 * nyquist] as const)
      : ([0.7 / layer_height_mm, Math.min(nyquist, 1.4 / layer_height_mm)] as const);
  const frequency = strongest(profile, range[0] / px_per_mm, range[1] / px_per_mm);
  if (frequency === null) return UNRESOLVED;
  // Lengths in pixels from here on.
  const spacing = 1 / frequency;
  if (spacing < FEWEST_PX - 1e-9 || profile.length / spacing < FEWEST_SPACINGS - 1e-9) {
    return UNRESOLVED;
  }
  const line_contrast = amplitudeAt(profile, frequency);
  const banding_contrast = bandRms(profile, 2.5 * spacing, profile.length / 2);
  const distances = spacings(profile, spacing).map((distance) => distance / px_per_mm);
  return {
    values: {
      line_spacing_mm: spacing / px_per_mm,
      line_contrast,
      banding_contrast,
      banding_ratio: line_contrast > 0 ? banding_contrast / (line_contrast / Math.SQRT2) : null,
      spacing_sd_mm: deviation(distances),
    },
    notes: distances.length < 2 ? ['too few lines in a row: no scatter of their spacing'] : [],
  };
}

/** The frequency of the strongest line of a windowed profile within a range, a pixel; null without any. */
function strongest(profile: Float64Array, low: number, high: number): number | null {
  const { length } = profile;
  let size = 8;
  while (size < 8 * length) size *= 2;
  const windowed = new Float64Array(size);
  for (let at = 0; at < length; at += 1) {
    const hann = length > 1 ? 0.5 - 0.5 * Math.cos((2 * Math.PI * at) / (length - 1)) : 1;
    windowed[at] = hann * (profile[at] ?? 0);
  }
  const fft = new FFT(size);
  const spectrum = fft.createComplexArray();
  fft.realTransform(spectrum, windowed);
  const strength = (at: number) => Math.hypot(spectrum[2 * at] ?? 0, spectrum[2 * at + 1] ?? 0);
  let best = -1;
  for (let at = Math.ceil(low * size); at <= Math.min(high * size, size / 2); at += 1) {
    if (best < 0 || strength(at) > strength(best)) best = at;
  }
  if (best < 1 || !(strength(best) > 1e-12 * length)) return null;
  const isPeak = strength(best) >= strength(best - 1) && strength(best) >= strength(best + 1);
  const offset = isPeak ? vertexOffset(strength(best - 1), strength(best), strength(best + 1)) : 0;
  return (best + offset) / size;
}

/** The amplitude of a sinusoid of a frequency in a profile, by least squares beside a constant. */
function amplitudeAt(profile: Float64Array, frequency: number): number {
  const wave = (of: (phase: number) => number) =>
    Float64Array.from(profile, (_, at) => of(2 * Math.PI * frequency * at));
  const [cosine, sine] = [wave(Math.cos), wave(Math.sin)];
  const constant = new Float64Array(profile.length).fill(1);
  const [one, c = one, s = c] = orthonormal([constant, cosine, sine]);
  if (!one || !c || !s) return 0;
  // Back from the orthonormal directions to cosine and sine.
  const b = dot(profile, s) / dot(sine, s);
  const a = (dot(profile, c) - b * dot(sine, c)) / dot(cosine, c);
  return Math.hypot(a, b);
}

/** The root mean square of a profile's parts with periods from one length to another, both included. */
function bandRms(profile: Float64Array, shortest: number, longest: number): number {
  const { length } = profile;
  let squares = 0;
  for (let k = 1; k < length / 2; k += 1) {
    const period = length / k;
    if (period > longest * (1 + 1e-9)) continue;
    if (period < shortest * (1 - 1e-9)) break;
    let [re, im] = [0, 0];
    for (let at = 0; at < length; at += 1) {
      const phase = (2 * Math.PI * ((k * at) % length)) / length;
      re += (profile[at] ?? 0) * Math.cos(phase);
      im += (profile[at] ?? 0) * Math.sin(phase);
    }
    squares += (2 * (re * re + im * im)) / (length * length);
  }
  return Math.sqrt(squares);
}

/** The distances of the maxima of a profile that follow each other, in pixels. */
function spacings(profile: Float64Array, spacing: number): number[] {
  const smooth = smoothed(profile, spacing / 6);
  const half = spacing / 2;
  const places: number[] = [];
  for (let at = Math.ceil(half); at + half <= smooth.length - 1; at += 1) {
    const own = smooth[at] ?? 0;
    let isHighest = true;
    for (let near = Math.ceil(at - half); near <= at + half && isHighest; near += 1) {
      const other = smooth[near] ?? 0;
      isHighest = near < at ? other < own : other <= own;
    }
    if (!isHighest) continue;
    places.push(at + vertexOffset(smooth[at - 1] ?? own, own, smooth[at + 1] ?? own));
  }
  return places.slice(1).map((place, at) => place - (places[at] ?? 0));
}

function deviation(values: readonly number[]): number | null {
  if (values.length < 2) return null;
  const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
  const squares = values.reduce((sum, value) => sum + (value - mean) ** 2, 0);
  return Math.sqrt(squares / (values.length - 1));
}

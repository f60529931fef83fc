import { plainFilters, type Bench, type Filters, type Pass } from './filters';
import { quickFilters } from './hot';

/** A Gaussian is cut off so many of its widths from its middle; what lies further weighs 2e-9. */
const REACH = 6;
/** From this width on, in pixels, a blur goes over a thinned grid. */
const THINNED_FROM = 5;
/** A thinned grid has a point for each so many pixels of the width. */
const WIDTHS_PER_STEP = 0.4;
/**
 * How far two Gaussians, taken together as σ₁σ₂/σ, outreach the step of the grid between them: what
 * the grid takes for something coarser is damped by exp(−2π²·1.1²) = 4e-11.
 */
const OVERLAP = 1.1;

/**
 * Blurs values by a Gaussian, along rows and then columns. Only pixels that count have a weight, and
 * the weights of each blur sum to 1; edges are treated alike.
 *
 * @param weights 1 where a pixel counts, 0 where not; null where all count
 * @param sigma in pixels
 * @param filters what the steps are done by; all ways come to the same numbers
 * @returns blurred values, to 1e-8 of the largest; where a pixel does not count, without meaning
 */
export const blurred = (
  values: Float64Array,
  weights: Float64Array | null,
  width: number,
  sigma: number,
  filters: Filters = usualFilters(values.length),
): Float64Array =>
  filters((bench) => {
    const block = weighted(bench, values, weights);
    const counting = weights && weighted(bench, weights, null);
    return bench.values(blurOf(bench, block, counting, width, sigma)).slice();
  });

/** The quickest way that there is here for so many values. */
export const usualFilters = (values: number): Filters => quickFilters(values) ?? plainFilters;

/** Values on a bench; 0 where a pixel does not count. */
export function weighted<Block>(
  bench: Bench<Block>,
  values: Float64Array,
  weights: Float64Array | null,
): Block {
  const block = bench.room(values.length);
  const own = bench.values(block);
  own.set(values);
  if (weights)
    for (let at = 0; at < own.length; at += 1) own[at] = (own[at] ?? 0) * (weights[at] ?? 0);
  return block;
}

/** Blurs values on a bench, which are 0 where a pixel does not count. */
export function blurOf<Block>(
  bench: Bench<Block>,
  values: Block,
  weights: Block | null,
  width: number,
  sigma: number,
): Block {
  const height = bench.values(values).length / width;
  const across = blurOfLines(sigma, width);
  const down = blurOfLines(sigma, height);
  const spread = (of: Block) => bench.kept(() => spreadOf(bench, of, width, across, down));
  const out = spread(values);
  if (weights) {
    const below = spread(weights);
    const [own, weight] = [bench.values(out), bench.values(below)];
    for (let at = 0; at < own.length; at += 1) {
      own[at] = own[at]! / weight[at]!;
    }
    return out;
  }
  // Where all count, the weight of a place is that of its column times that of its row.
  const ofColumn = weightsOf(across, width);
  const ofRow = weightsOf(down, height);
  const own = bench.values(out);
  for (let y = 0, at = 0; y < height; y += 1) {
    const weight = ofRow[y]!;
    for (let x = 0; x < width; x += 1, at += 1) {
      own[at] = own[at]! / (weight * ofColumn[x]!);
    }
  }
  return out;
}

/** Blurs in both directions, without minding what the weights sum to. */
function spreadOf<Block>(
  bench: Bench<Block>,
  values: Block,
  width: number,
  across: readonly Pass[],
  down: readonly Pass[],
): Block {
  const [first, ...rest] = down;
  if (!first) return values;
  // The columns are thinned first, and thickened last: in between there is less of everything.
  let made = bench.turned(bench.filtered(values, width, first), width);
  for (const pass of across) made = bench.filtered(made, first.points, pass);
  made = bench.turned(made, first.points);
  for (const pass of rest) made = bench.filtered(made, width, pass);
  return made;
}

/** What the weights of each place of a line sum to. */
const weightsOf = (passes: readonly Pass[], length: number): Float64Array =>
  plainFilters((bench) => {
    let line = bench.room(length);
    bench.values(line).fill(1);
    for (const pass of passes) line = bench.filtered(line, 1, pass);
    return bench.values(line);
  });

/**
 * How lines of one length are blurred. A wide Gaussian is two narrower ones one after the other,
 * σ² = σ₁² + σ₂². After the first nothing fine is left, so that it is needed at every so many pixels
 * only, and the second fills in what lies between: the work no longer grows with the width.
 *
 * @see Burt, Fast filter transforms for image processing, 1981
 */
function blurOfLines(sigma: number, length: number): Pass[] {
  if (sigma < THINNED_FROM) {
    return [thinning(gaussian(sigma), { length, step: 1, margin: 0, points: length })];
  }
  const step = Math.floor(sigma * WIDTHS_PER_STEP);
  const turn = Math.asin(Math.min(1, (2 * OVERLAP * step) / sigma)) / 2;
  const second = gaussian(sigma * Math.sin(turn));
  // Grid points before and behind a line that still reach into it.
  const margin = Math.ceil(second.length / step);
  const grid = { length, step, margin, points: Math.ceil(length / step) + 2 * margin };
  return [thinning(gaussian(sigma * Math.cos(turn)), grid), thickening(second, grid)];
}

/** The half of a Gaussian from its middle on, cut off where nothing is left of it. */
function gaussian(sigma: number): Float64Array {
  const reach = Math.max(1, Math.ceil(REACH * sigma));
  return Float64Array.from({ length: reach + 1 }, (_, at) =>
    Math.exp(-(at * at) / (2 * sigma * sigma)),
  );
}

interface Grid {
  length: number;
  /** Pixels from point to point. */
  step: number;
  /** Points before and behind a line. */
  margin: number;
  points: number;
}

/** From all pixels to the points of a grid. */
function thinning(half: Float64Array, { length, step, margin, points }: Grid): Pass {
  const reach = half.length - 1;
  const taps = 2 * reach + 1;
  return {
    length,
    points,
    before: reach + margin * step,
    padded: Math.max(reach + margin * step + length, (points - 1) * step + taps),
    rows: Array.from({ length: Math.min(step, taps) }, (_, phase) => ({
      kernel: Float64Array.from(
        { length: Math.ceil((taps - phase) / step) },
        (__, tap) => half[Math.abs(tap * step + phase - reach)] ?? 0,
      ),
      of: { from: phase, apart: step },
      to: { from: 0, apart: 1 },
      count: points,
    })),
  };
}

/** From the points of a grid to all pixels. */
function thickening(half: Float64Array, { length, step, margin, points }: Grid): Pass {
  return {
    length: points,
    before: 0,
    padded: points,
    points: length,
    rows: Array.from({ length: Math.min(step, length) }, (_, phase) => ({
      kernel: Float64Array.from(
        { length: 2 * margin + 1 },
        (__, tap) => half[Math.abs(phase - (tap - margin) * step)] ?? 0,
      ),
      of: { from: 0, apart: 1 },
      to: { from: phase, apart: step },
      count: Math.ceil((length - phase) / step),
    })),
  };
}

import { blurOf, usualFilters, weighted } from './blur';
import { keepComponents } from './components';
import type { Measured, MeasureOptions } from './measured';
import type { Raster } from './raster';

/** A gap is darker than this share of what is around it. */
const DARKER = 0.75;
const SMALLEST_MM2 = 0.02;
/** What lies so near a gap is left out of the ripple, mm. */
const MARGIN_MM = 0.1;
/** Periods of the ripple, mm. */
const SHORT_MM = 0.2;
const LONG_MM = 2;

/** Gaps in a flat face, and the ripple of what is whole. */
export function gaps(raster: Raster, { px_per_mm }: MeasureOptions): Measured {
  const { width, height, data } = raster;
  const mask = darkerThanAround(raster, Math.round(px_per_mm));
  const pixel = 1 / px_per_mm ** 2;
  const found = keepComponents(mask, width, ({ pixels }) => pixels * pixel >= SMALLEST_MM2 - 1e-12);
  const weights = found.length > 0 ? awayFrom(mask, width, height, MARGIN_MM * px_per_mm) : null;
  const ripple_contrast = rippleOf(raster, weights, px_per_mm);
  const pixels = found.reduce((sum, one) => sum + one.pixels, 0);
  const largest = found.reduce((most, one) => Math.max(most, one.pixels), 0);
  return {
    values: {
      gap_share: pixels / data.length,
      gap_count: found.length,
      largest_mm2: largest * pixel,
      ripple_contrast,
    },
    notes: ripple_contrast === null ? ['nothing is left beside the gaps: no ripple'] : [],
  };
}

/** The ripple of a whole face: comparable in the same light only. */
export function texture(raster: Raster, { px_per_mm }: MeasureOptions): Measured {
  return { values: { texture_contrast: rippleOf(raster, null, px_per_mm) }, notes: [] };
}

/**
 * Root mean square of the contrast between two periods, over the pixels that count; null without any.
 *
 * @param weights 1 where a pixel counts, 0 where not; null where all count
 */
function rippleOf(
  { width, data }: Raster,
  weights: Float64Array | null,
  px_per_mm: number,
): number | null {
  const { count, mean } = meanOfCounting(data, weights);
  if (!(mean > 0)) return null;
  const sigma = (period_mm: number) =>
    (period_mm / (2 * Math.PI)) * Math.sqrt(2 * Math.LN2) * px_per_mm;
  return usualFilters(data.length)((bench) => {
    const contrast = bench.room(data.length);
    const own = bench.values(contrast);
    for (let at = 0; at < own.length; at += 1) own[at] = data[at]! / mean - 1;
    if (weights) {
      for (let at = 0; at < own.length; at += 1) if (!weights[at]) own[at] = 0;
    }
    const counting = weights && weighted(bench, weights, null);
    const fineBlock = blurOf(bench, contrast, counting, width, sigma(SHORT_MM));
    const coarseBlock = blurOf(bench, contrast, counting, width, sigma(LONG_MM));
    const [fine, coarse] = [bench.values(fineBlock), bench.values(coarseBlock)];
    let squares = 0;
    for (let at = 0; at < fine.length; at += 1) {
      if (weights !== null && weights[at] === 0) continue;
      const ripple = fine[at]! - coarse[at]!;
      squares += ripple * ripple;
    }
    return Math.sqrt(squares / count);
  });
}

/** How many pixels count, and their mean; NaN of none. */
function meanOfCounting(
  data: Float64Array,
  weights: Float64Array | null,
): { count: number; mean: number } {
  let [count, total] = [0, 0];
  if (weights) {
    for (let at = 0; at < data.length; at += 1) {
      if (weights[at] === 0) continue;
      count += 1;
      total += data[at]!;
    }
  } else {
    count = data.length;
    for (let at = 0; at < data.length; at += 1) total += data[at]!;
  }
  return { count, mean: total / count };
}

/** Marks the pixels that are darker than the mean over a box around them, as far as it lies inside. */
function darkerThanAround({ width, height, data }: Raster, reach: number): Uint8Array {
  // Of all above and to the left of a corner between pixels.
  const across = width + 1;
  const sums = new Float64Array(across * (height + 1));
  for (let y = 0, at = 0; y < height; y += 1) {
    let row = 0;
    for (let x = 0, corner = (y + 1) * across + 1; x < width; x += 1, at += 1, corner += 1) {
      row += data[at]!;
      sums[corner] = sums[corner - across]! + row;
    }
  }
  const mask = new Uint8Array(data.length);
  for (let y = 0, at = 0; y < height; y += 1) {
    const top = Math.max(0, y - reach);
    const bottom = Math.min(height, y + reach + 1);
    const [above, below] = [top * across, bottom * across];
    for (let x = 0; x < width; x += 1, at += 1) {
      const left = Math.max(0, x - reach);
      const right = Math.min(width, x + reach + 1);
      const total =
        sums[below + right]! - sums[below + left]! - sums[above + right]! + sums[above + left]!;
      const mean = total / ((right - left) * (bottom - top));
      if (data[at]! < DARKER * mean) mask[at] = 1;
    }
  }
  return mask;
}

/** 1 for the pixels further than a distance from every set one, else 0. */
function awayFrom(mask: Uint8Array, width: number, height: number, distance: number): Float64Array {
  const out = new Float64Array(mask.length).fill(1);
  const reach = Math.floor(distance + 1e-9);
  const offsets: [number, number][] = [];
  for (let dy = -reach; dy <= reach; dy += 1) {
    for (let dx = -reach; dx <= reach; dx += 1) {
      if (dx * dx + dy * dy <= distance * distance + 1e-9) offsets.push([dx, dy]);
    }
  }
  for (let at = 0; at < mask.length; at += 1) {
    if (!mask[at]) continue;
    const x = at % width;
    const y = (at - x) / width;
    for (const [dx, dy] of offsets) {
      const [nx, ny] = [x + dx, y + dy];
      if (nx >= 0 && ny >= 0 && nx < width && ny < height) out[ny * width + nx] = 0;
    }
  }
  return out;
}

import { median } from '../stats';
import { keepComponents } from './components';
import type { Measured } from './measured';
import type { Raster } from './raster';

const FEWEST_ROWS = 9;
/** Scatter of a normal distribution from its median absolute deviation. */
const FROM_MEDIAN = 1.4826;

/**
 * Strings between two bodies before a plain background: how much of it they cover and how many
 * there are. What spans less than a tenth of the width is no string.
 */
export function strings({ width, height, data }: Raster): Measured {
  if (height < FEWEST_ROWS) {
    return {
      values: { coverage_share: null, strands: null, densest: null },
      notes: [`fewer than ${FEWEST_ROWS} rows: no background can be told`],
    };
  }
  const background = backgroundOf({ width, height, data });
  const apart = data.map((value, at) => Math.abs(value - (background[at] ?? 0)));
  const scatter = FROM_MEDIAN * medianOf(apart);
  const mask = new Uint8Array(data.length);
  for (let at = 0; at < mask.length; at += 1) {
    if ((apart[at] ?? 0) > Math.max(5 * scatter, 0.03 * (background[at] ?? 0))) mask[at] = 1;
  }
  const covered = columns(width, height, (at) => mask[at] === 1);
  const isBlind = covered.map((count) => count > height / 2);
  for (let at = 0; at < mask.length; at += 1) if (isBlind[at % width]) mask[at] = 0;
  keepComponents(mask, width, ({ left, right }) => right - left + 1 >= width / 10 - 1e-9);
  const runs = columns(
    width,
    height,
    (at) => mask[at] === 1 && (at < width || mask[at - width] === 0),
  ).filter((_, x) => !isBlind[x]);
  const blind = isBlind.filter(Boolean).length;
  const notes = blind > 0 ? [`columns without a background, left out: ${blind}`] : [];
  if (runs.length === 0) {
    return { values: { coverage_share: null, strands: null, densest: null }, notes };
  }
  const set = mask.reduce((sum, value) => sum + value, 0);
  return {
    values: {
      coverage_share: set / (runs.length * height),
      strands: median(runs),
      densest: runs.reduce((most, count) => Math.max(most, count), 0),
    },
    notes,
  };
}

/** Counts the pixels of each column for which something holds. */
function columns(width: number, height: number, holds: (at: number) => boolean): number[] {
  const counts = new Array<number>(width).fill(0);
  for (let at = 0; at < width * height; at += 1) {
    if (holds(at)) counts[at % width] = (counts[at % width] ?? 0) + 1;
  }
  return counts;
}

/** What every pixel would be without strings: in each column a parabola through three medians. */
function backgroundOf({ width, height, data }: Raster): Float64Array {
  const ends = [0, 1, 2, 3].map((third) => Math.floor((third * height) / 3));
  const middles = [0, 1, 2].map((third) => ((ends[third] ?? 0) + (ends[third + 1] ?? 0) - 1) / 2);
  const [y0 = 0, y1 = 1, y2 = 2] = middles;
  const out = new Float64Array(data.length);
  for (let x = 0; x < width; x += 1) {
    const [m0 = 0, m1 = 0, m2 = 0] = [0, 1, 2].map((third) => {
      const part: number[] = [];
      for (let y = ends[third] ?? 0; y < (ends[third + 1] ?? 0); y += 1) {
        part.push(data[y * width + x] ?? 0);
      }
      return median(part);
    });
    for (let y = 0; y < height; y += 1) {
      out[y * width + x] =
        (m0 * (y - y1) * (y - y2)) / ((y0 - y1) * (y0 - y2)) +
        (m1 * (y - y0) * (y - y2)) / ((y1 - y0) * (y1 - y2)) +
        (m2 * (y - y0) * (y - y1)) / ((y2 - y0) * (y2 - y1));
    }
  }
  return out;
}

/** The median of many values; sorts a copy of its own kind. */
function medianOf(values: Float64Array): number {
  const sorted = Float64Array.from(values).sort();
  const middle = (sorted.length - 1) / 2;
  return ((sorted[Math.floor(middle)] ?? 0) + (sorted[Math.ceil(middle)] ?? 0)) / 2;
}

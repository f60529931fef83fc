import { median, medianInPlace } from '../stats';
import { keepComponents } from './components';
import type { Measured } from './measured';
import { turned } from './filters';
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
  const apart = (at: number) => Math.abs((data[at] ?? 0) - (background[at] ?? 0));
  const distances = new Float64Array(data.length);
  for (let at = 0; at < distances.length; at += 1) distances[at] = apart(at);
  const scatter = FROM_MEDIAN * medianInPlace(distances);
  const mask = new Uint8Array(data.length);
  for (let at = 0; at < mask.length; at += 1) {
    if (apart(at) > Math.max(5 * scatter, 0.03 * (background[at] ?? 0))) mask[at] = 1;
  }
  const covered = columns(width, height, (at) => mask[at] === 1);
  const isBlind = covered.map((count) => count > height / 2);
  isBlind.forEach((is, x) => {
    if (is) for (let at = x; at < mask.length; at += width) mask[at] = 0;
  });
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
  const set = columns(width, height, (at) => mask[at] === 1).reduce((sum, one) => sum + one, 0);
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
  for (let y = 0, at = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1, at += 1) if (holds(at)) counts[x] = (counts[x] ?? 0) + 1;
  }
  return counts;
}

/** What every pixel would be without strings: in each column a parabola through three medians. */
function backgroundOf({ width, height, data }: Raster): Float64Array {
  const ends = [0, 1, 2, 3].map((third) => Math.floor((third * height) / 3));
  const middles = [0, 1, 2].map((third) => ((ends[third] ?? 0) + (ends[third + 1] ?? 0) - 1) / 2);
  const [y0 = 0, y1 = 1, y2 = 2] = middles;
  const byColumn = turned(data, width);
  const medians = [0, 1, 2].map((third) =>
    Float64Array.from({ length: width }, (_, x) =>
      medianInPlace(
        byColumn.subarray(x * height + (ends[third] ?? 0), x * height + (ends[third + 1] ?? 0)),
      ),
    ),
  );
  const [upper = byColumn, middle = byColumn, lower = byColumn] = medians;
  // What the medians have moved about is not looked at any more.
  const out = byColumn;
  for (let y = 0, at = 0; y < height; y += 1) {
    const a = ((y - y1) * (y - y2)) / ((y0 - y1) * (y0 - y2));
    const b = ((y - y0) * (y - y2)) / ((y1 - y0) * (y1 - y2));
    const c = ((y - y0) * (y - y1)) / ((y2 - y0) * (y2 - y1));
    for (let x = 0; x < width; x += 1, at += 1) {
      out[at] = a * (upper[x] ?? 0) + b * (middle[x] ?? 0) + c * (lower[x] ?? 0);
    }
  }
  return out;
}

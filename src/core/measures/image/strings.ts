import { median, medianInPlace } from '../../statistics/stats';
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
  const distances = new Float64Array(data.length);
  for (let at = 0; at < distances.length; at += 1) {
    distances[at] = Math.abs(data[at]! - background[at]!);
  }
  const scatter = FROM_MEDIAN * medianInPlace(distances.slice());
  const mask = new Uint8Array(data.length);
  const covered = new Int32Array(width);
  for (let y = 0, at = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1, at += 1) {
      const least = Math.max(5 * scatter, 0.03 * background[at]!);
      if (!(distances[at]! > least)) continue;
      mask[at] = 1;
      covered[x] = covered[x]! + 1;
    }
  }
  const isBlind = Array.from(covered, (count) => count > height / 2);
  isBlind.forEach((is, x) => {
    if (is) for (let at = x; at < mask.length; at += width) mask[at] = 0;
  });
  keepComponents(mask, width, ({ left, right }) => right - left + 1 >= width / 10 - 1e-9);
  const [begun, set] = runsOf(mask, width);
  const runs = Array.from(begun).filter((_, x) => !isBlind[x]);
  const blind = isBlind.filter(Boolean).length;
  const notes = blind > 0 ? [`columns without a background, left out: ${blind}`] : [];
  if (runs.length === 0) {
    return { values: { coverage_share: null, strands: null, densest: null }, notes };
  }
  return {
    values: {
      coverage_share: set / (runs.length * height),
      strands: median(runs),
      densest: runs.reduce((most, count) => Math.max(most, count), 0),
    },
    notes,
  };
}

/** How many runs of set pixels each column has, and how many pixels are set at all. */
function runsOf(mask: Uint8Array, width: number): [Int32Array, number] {
  const runs = new Int32Array(width);
  let set = 0;
  for (let at = 0, x = 0; at < mask.length; at += 1, x = x + 1 === width ? 0 : x + 1) {
    if (mask[at] === 0) continue;
    set += 1;
    if (at < width || mask[at - width] === 0) runs[x] = runs[x]! + 1;
  }
  return [runs, set];
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
      out[at] = a * upper[x]! + b * middle[x]! + c * lower[x]!;
    }
  }
  return out;
}

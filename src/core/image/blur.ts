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
 * @returns blurred values, to 1e-8 of the largest; where a pixel does not count, without meaning
 */
export function blurred(
  values: Float64Array,
  weights: Float64Array | null,
  width: number,
  sigma: number,
): Float64Array {
  const height = values.length / width;
  const across = blurOfLines(sigma, width);
  const down = blurOfLines(sigma, height);
  if (weights) {
    const weighted = values.map((value, at) => value * (weights[at] ?? 0));
    const above = spread(weighted, across, down);
    const below = spread(weights, across, down);
    for (let at = 0; at < above.length; at += 1) above[at] = (above[at] ?? 0) / (below[at] ?? 0);
    return above;
  }
  // Where all count, the weight of a place is that of its column times that of its row.
  const out = spread(values, across, down);
  const ofColumn = weightsOf(across, width);
  const ofRow = weightsOf(down, height);
  for (let y = 0, at = 0; y < height; y += 1) {
    const own = ofRow[y] ?? 0;
    for (let x = 0; x < width; x += 1, at += 1) {
      out[at] = (out[at] ?? 0) / (own * (ofColumn[x] ?? 0));
    }
  }
  return out;
}

/** Blurs in both directions, without minding what the weights sum to. */
function spread(
  values: Float64Array,
  across: readonly Pass[],
  down: readonly Pass[],
): Float64Array {
  const [first, ...rest] = across;
  if (!first) return values;
  const thin = down.reduce(
    (out, pass) => filteredDown(out, first.points, pass),
    filteredAcross(values, first),
  );
  return rest.reduce((out, pass) => filteredAcross(out, pass), thin);
}

/** What the weights of each place of a line sum to. */
function weightsOf(passes: readonly Pass[], length: number): Float64Array {
  let line: Float64Array = new Float64Array(length).fill(1);
  for (const pass of passes) line = filteredAcross(line, pass);
  return line;
}

/** A row of results and what they are made of: `to[i] += Σ kernel[j]·of[i + j]`, both in strides. */
interface Row {
  kernel: Float64Array;
  of: { from: number; apart: number };
  to: { from: number; apart: number };
  count: number;
}

/** What is done to a line: zeros are put before and behind it, then its rows are added up. */
interface Pass {
  length: number;
  before: number;
  padded: number;
  rows: readonly Row[];
  /** How many values there are then. */
  points: number;
}

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
    ...{ length, points },
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
    ...{ length: points, before: 0, padded: points, points: length },
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

/** A pass over lines that stand one after another. */
function filteredAcross(values: Float64Array, pass: Pass): Float64Array {
  const { length, points } = pass;
  const lines = values.length / length;
  const out = new Float64Array(lines * points);
  const line = new Float64Array(pass.padded);
  for (let each = 0; each < lines; each += 1) {
    line.set(values.subarray(each * length, (each + 1) * length), pass.before);
    for (const { kernel, of, to, count } of pass.rows) {
      let [from, at] = [of.from, each * points + to.from];
      let left = count;
      for (; left >= 4; left -= 4, from += 4 * of.apart, at += 4 * to.apart) {
        addFour(line, from, of.apart, kernel, out, at, to.apart);
      }
      for (; left > 0; left -= 1, from += of.apart, at += to.apart) {
        addOne(line, from, of.apart, kernel, out, at);
      }
    }
  }
  return out;
}

/** A pass over columns of values that stand row by row. */
function filteredDown(values: Float64Array, width: number, pass: Pass): Float64Array {
  const out = new Float64Array(pass.points * width);
  const whole = new Float64Array(pass.padded * width);
  whole.set(values, pass.before * width);
  for (const { kernel, of, to, count } of pass.rows) {
    const [ofApart, toApart] = [of.apart * width, to.apart * width];
    let [from, at] = [of.from * width, to.from * width];
    let left = count;
    for (; left >= 4; left -= 4, from += 4 * ofApart, at += 4 * toApart) {
      for (let x = 0; x < width; x += 1) {
        addFour(whole, from + x, ofApart, kernel, out, at + x, toApart);
      }
    }
    for (; left > 0; left -= 1, from += ofApart, at += toApart) {
      for (let x = 0; x < width; x += 1) addOne(whole, from + x, ofApart, kernel, out, at + x);
    }
  }
  return out;
}

/** Four results of a row side by side, so that each value is read once for all of them. */
function addFour(
  of: Float64Array,
  from: number,
  ofApart: number,
  kernel: Float64Array,
  to: Float64Array,
  at: number,
  toApart: number,
): void {
  let a = to[at] ?? 0;
  let b = to[at + toApart] ?? 0;
  let c = to[at + 2 * toApart] ?? 0;
  let d = to[at + 3 * toApart] ?? 0;
  let p = of[from] ?? 0;
  let q = of[from + ofApart] ?? 0;
  let r = of[from + 2 * ofApart] ?? 0;
  for (let tap = 0, next = from + 3 * ofApart; tap < kernel.length; tap += 1, next += ofApart) {
    const weight = kernel[tap] ?? 0;
    const s = of[next] ?? 0;
    a += weight * p;
    b += weight * q;
    c += weight * r;
    d += weight * s;
    p = q;
    q = r;
    r = s;
  }
  to[at] = a;
  to[at + toApart] = b;
  to[at + 2 * toApart] = c;
  to[at + 3 * toApart] = d;
}

/** One result of a row. */
function addOne(
  of: Float64Array,
  from: number,
  ofApart: number,
  kernel: Float64Array,
  to: Float64Array,
  at: number,
): void {
  let sum = to[at] ?? 0;
  for (let tap = 0; tap < kernel.length; tap += 1) {
    sum += (kernel[tap] ?? 0) * (of[from + tap * ofApart] ?? 0);
  }
  to[at] = sum;
}

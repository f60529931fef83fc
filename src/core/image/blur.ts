/**
 * Blurs values by a Gaussian, along rows and then columns. Only pixels that count have a weight, and
 * the weights of each blur sum to 1; edges are treated alike.
 *
 * @param weights 1 where a pixel counts, 0 where not
 * @param sigma in pixels
 * @returns blurred values; NaN where nothing within reach counts
 */
export function blurred(
  values: Float64Array,
  weights: Float64Array,
  width: number,
  sigma: number,
): Float64Array {
  const kernel = gaussian(sigma);
  const weighted = values.map((value, at) => value * (weights[at] ?? 0));
  const height = values.length / width;
  const twice = (of: Float64Array) =>
    convolved(convolved(of, kernel, height, width, 1, width), kernel, width, height, width, 1);
  const above = twice(weighted);
  const below = twice(weights);
  return above.map((value, at) => value / (below[at] ?? 0));
}

function gaussian(sigma: number): Float64Array {
  const reach = Math.max(1, Math.ceil(6 * sigma));
  const kernel = Float64Array.from({ length: reach + 1 }, (_, at) =>
    Math.exp(-(at * at) / (2 * sigma * sigma)),
  );
  const total = kernel.reduce((sum, value, at) => sum + (at === 0 ? value : 2 * value), 0);
  return kernel.map((value) => value / total);
}

/** Convolves lines of values; what lies outside is 0. */
function convolved(
  values: Float64Array,
  kernel: Float64Array,
  lines: number,
  length: number,
  stride: number,
  lineStride: number,
): Float64Array {
  const out = new Float64Array(values.length);
  const reach = kernel.length - 1;
  const line = new Float64Array(length + 2 * reach);
  for (let each = 0; each < lines; each += 1) {
    const start = each * lineStride;
    for (let at = 0; at < length; at += 1) line[reach + at] = values[start + at * stride] ?? 0;
    for (let at = 0; at < length; at += 1) {
      const middle = reach + at;
      let total = (kernel[0] ?? 0) * (line[middle] ?? 0);
      for (let off = 1; off <= reach; off += 1) {
        total += (kernel[off] ?? 0) * ((line[middle - off] ?? 0) + (line[middle + off] ?? 0));
      }
      out[start + at * stride] = total;
    }
  }
  return out;
}

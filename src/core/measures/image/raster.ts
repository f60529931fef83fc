/** A region of a picture as relative luminance, 0…1, row by row from the top. */
export interface Raster {
  width: number;
  height: number;
  /** width × height values. */
  data: Float64Array;
}

/** Pixels as they are stored: 8 or 16 bits, grey (1 or 2 channels) or colour (3 or 4). */
export interface Pixels {
  width: number;
  height: number;
  channels: number;
  data: Uint8Array | Uint8ClampedArray | Uint16Array;
}

const RED = 0.2126;
const GREEN = 0.7152;
const BLUE = 0.0722;

/**
 * The linear value of an sRGB value, both 0…1.
 *
 * @see IEC 61966-2-1
 */
export const linear = (value: number): number =>
  value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4;

/** The sRGB value of a linear one, both 0…1. */
export const encoded = (value: number): number =>
  value <= 0.0031308 ? 12.92 * value : 1.055 * value ** (1 / 2.4) - 0.055;

/**
 * Relative luminance of pixels: linearised sRGB, weighted after Rec. 709; a channel of transparency
 * is dropped.
 */
export function luminanceOf({ width, height, channels, data }: Pixels): Raster {
  const steps = data instanceof Uint16Array ? 65_536 : 256;
  const table = Float64Array.from({ length: steps }, (_, at) => linear(at / (steps - 1)));
  const of = (at: number): number => table[data[at] ?? 0] ?? 0;
  const out = new Float64Array(width * height);
  const isGrey = channels < 3;
  for (let pixel = 0, at = 0; pixel < out.length; pixel += 1, at += channels) {
    out[pixel] = isGrey ? of(at) : RED * of(at) + GREEN * of(at + 1) + BLUE * of(at + 2);
  }
  return { width, height, data: out };
}

/** The means of some rows of a raster, column by column. */
export function columnMeans({ width, data }: Raster, from: number, to: number): Float64Array {
  const out = new Float64Array(width);
  for (let row = from; row < to; row += 1) {
    const start = row * width;
    for (let x = 0; x < width; x += 1) out[x] = (out[x] ?? 0) + (data[start + x] ?? 0);
  }
  for (let x = 0; x < width; x += 1) out[x] = (out[x] ?? 0) / (to - from);
  return out;
}

/** The means of all rows of a raster, from the top. */
export function rowMeans({ width, height, data }: Raster): Float64Array {
  const out = new Float64Array(height);
  for (let row = 0; row < height; row += 1) {
    let total = 0;
    for (let at = row * width; at < (row + 1) * width; at += 1) total += data[at] ?? 0;
    out[row] = total / width;
  }
  return out;
}

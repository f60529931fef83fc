import { project, type Projection } from './projection';
import type { Pixels, Raster } from './raster';
import type { ViewBox } from './registration';

/** How many pixels a rectangle of a view has at a scale. */
const pixelsOf = (
  { w, h }: Pick<ViewBox, 'w' | 'h'>,
  pxPerMm: number,
): { width: number; height: number } => ({
  width: Math.max(1, Math.round(w * pxPerMm)),
  height: Math.max(1, Math.round(h * pxPerMm)),
});

/**
 * A rectangle of a view out of a registered photo, bilinearly, its first row the topmost. What lies
 * outside the photo is NaN.
 *
 * @param toPicture from the view's millimetres to the photo's pixels, a pixel's middle at ½
 * @param origin pixel of the photo at which the raster begins
 */
export function resampled(
  raster: Raster,
  toPicture: Projection,
  box: ViewBox,
  pxPerMm: number,
  origin: { x: number; y: number } = { x: 0, y: 0 },
): Raster {
  const { width, height } = pixelsOf(box, pxPerMm);
  const out = new Float64Array(width * height);
  const [dx, dy] = [box.w / width, box.h / height];
  const last = { x: raster.width - 1, y: raster.height - 1 };
  for (let row = 0, at = 0; row < height; row += 1) {
    const y = box.y + box.h - (row + 0.5) * dy;
    for (let column = 0; column < width; column += 1, at += 1) {
      const point = project(toPicture, { x: box.x + (column + 0.5) * dx, y });
      const u = point.x - 0.5 - origin.x;
      const v = point.y - 0.5 - origin.y;
      if (!(u >= -0.5 && v >= -0.5 && u <= last.x + 0.5 && v <= last.y + 0.5)) {
        out[at] = Number.NaN;
        continue;
      }
      const [cu, cv] = [Math.min(Math.max(u, 0), last.x), Math.min(Math.max(v, 0), last.y)];
      const left = Math.min(Math.floor(cu), Math.max(0, last.x - 1));
      const top = Math.min(Math.floor(cv), Math.max(0, last.y - 1));
      const [fu, fv] = [cu - left, cv - top];
      const start = top * raster.width + left;
      const right = last.x > 0 ? 1 : 0;
      const below = last.y > 0 ? raster.width : 0;
      out[at] =
        (1 - fv) * ((1 - fu) * (raster.data[start] ?? 0) + fu * (raster.data[start + right] ?? 0)) +
        fv *
          ((1 - fu) * (raster.data[start + below] ?? 0) +
            fu * (raster.data[start + below + right] ?? 0));
    }
  }
  return { width, height, data: out };
}

/**
 * A photo laid onto a rectangle of its view, to be looked at: 8 bits, three channels, bilinearly.
 * What lies outside the photo has the fill's grey.
 *
 * @param source three channels of 8 bits
 */
export function warped(
  source: Pixels & { data: Uint8Array },
  toPicture: Projection,
  box: ViewBox,
  pxPerMm: number,
  fill = 0xee,
): Pixels & { data: Uint8Array } {
  const { width, height } = pixelsOf(box, pxPerMm);
  const out = new Uint8Array(width * height * 3).fill(fill);
  const [a = 0, b = 0, c = 0, d = 0, e = 0, f = 0, g = 0, h = 0, i = 1] = toPicture;
  const { data, width: across, height: down } = source;
  const stride = across * 3;
  const step = box.w / width;
  for (let row = 0, at = 0; row < height; row += 1) {
    const y = box.y + box.h - ((row + 0.5) * box.h) / height;
    const x = box.x + step / 2;
    let top = a * x + b * y + c;
    let side = d * x + e * y + f;
    let w = g * x + h * y + i;
    for (let column = 0; column < width; column += 1, at += 3) {
      const u = top / w - 0.5;
      const v = side / w - 0.5;
      top += a * step;
      side += d * step;
      w += g * step;
      if (!(u >= 0 && v >= 0 && u < across - 1 && v < down - 1)) continue;
      const left = u | 0;
      const above = v | 0;
      // Eighths of a bit are more than the eye sees: whole-number weights of 256ths.
      const fu = ((u - left) * 256) | 0;
      const fv = ((v - above) * 256) | 0;
      const from = above * stride + left * 3;
      for (let channel = 0; channel < 3; channel += 1) {
        const p = from + channel;
        const upper = (data[p] ?? 0) * (256 - fu) + (data[p + 3] ?? 0) * fu;
        const lower = (data[p + stride] ?? 0) * (256 - fu) + (data[p + stride + 3] ?? 0) * fu;
        out[at + channel] = (upper * (256 - fv) + lower * fv + 32_768) >> 16;
      }
    }
  }
  return { width, height, channels: 3, data: out };
}

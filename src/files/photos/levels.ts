import sharp from 'sharp';
import type { Pixels } from '../../core/measures/image';

/** Three channels of 8 bits. */
export type Rgb = Pixels & { data: Uint8Array };

/** Decodes nothing: takes pixels as they are. */
export const fromPixels = ({ data, width, height, channels }: Rgb) =>
  sharp(data, { raw: { width, height, channels: channels as 3 } });

/** The picture at half its size, each pixel the mean of four. */
export function halved({ data, width, height, channels }: Rgb): Rgb {
  const [w, h] = [Math.max(1, width >> 1), Math.max(1, height >> 1)];
  const out = new Uint8Array(w * h * channels);
  const stride = width * channels;
  const [right, below] = [width > 1 ? channels : 0, height > 1 ? stride : 0];
  for (let y = 0, at = 0; y < h; y += 1) {
    for (let x = 0; x < w; x += 1) {
      const from = 2 * y * stride + 2 * x * channels;
      for (let channel = 0; channel < channels; channel += 1, at += 1) {
        const p = from + channel;
        out[at] =
          ((data[p] ?? 0) +
            (data[p + right] ?? 0) +
            (data[p + below] ?? 0) +
            (data[p + below + right] ?? 0) +
            2) >>
          2;
      }
    }
  }
  return { data: out, width: w, height: h, channels };
}

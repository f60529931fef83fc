import sharp from 'sharp';
import {
  project,
  warped,
  type Pixels,
  type Projection,
  type ViewBox,
} from '../../core/measures/image';
import { fromPixels, halved, type Rgb } from './levels';
import { PictureError, readColour } from './pictures';

/** A photo to be cut: how points of its view lie in it. */
export interface BlindFrame {
  path: string;
  toPicture: Projection;
  /** Pixels of the photo to a millimetre of its view. */
  pxPerMm: number;
}

/** Whether pictures are shown as they were taken, or grey and equally bright. */
export type Levels = 'as-taken' | 'matched';

const QUALITY = 88;
const CORNERS = [
  [0, 0],
  [1, 0],
  [0, 1],
  [1, 1],
] as const;

/**
 * Cuts photos to one place so that nothing but what is to be seen tells them apart: the same pixels to the
 * millimetre, the same size, the same encoder, nothing that the camera wrote.
 *
 * @returns JPEGs in the order of the frames
 * @throws PictureError where a photo cannot be read, or does not show all of the place
 */
export async function blindPictures(
  frames: readonly BlindFrame[],
  box: ViewBox,
  pxPerMm: number,
  levels: Levels,
): Promise<Uint8Array[]> {
  const cut: Grey[] = [];
  const colours: Rgb[] = [];
  for (const frame of frames) {
    const pixels = await cutOut(frame, box, pxPerMm);
    if (levels === 'matched') cut.push(greyOf(pixels));
    else colours.push(pixels);
  }
  const out: Uint8Array[] = [];
  const target = cut.reduce((sum, one) => sum + one.mean, 0) / Math.max(1, cut.length);
  for (const { data, width, height, mean } of cut) {
    const gain = mean > 0 ? target / mean : 1;
    const raw = { width, height, channels: 1 as const };
    out.push(await encoded(sharp(data, { raw }).linear(gain, 0).toColourspace('b-w')));
  }
  for (const pixels of colours) out.push(await encoded(fromPixels(pixels)));
  return out;
}

const encoded = async (picture: sharp.Sharp): Promise<Uint8Array> =>
  new Uint8Array(await picture.jpeg({ quality: QUALITY, optimiseCoding: false }).toBuffer());

/** A picture by its levels of grey. */
interface Grey {
  data: Uint8Array;
  width: number;
  height: number;
  mean: number;
}

/** Luma of each pixel (Rec. 709 weights on the encoded levels, as a screen shows them). */
function greyOf({ data, width, height, channels }: Pixels): Grey {
  const grey = new Uint8Array(width * height);
  let sum = 0;
  for (let at = 0; at < grey.length; at += 1) {
    const from = at * channels;
    const [r = 0, g = r, b = r] =
      channels < 3 ? [data[from]] : [data[from], data[from + 1], data[from + 2]];
    const value = Math.round(0.2126 * r + 0.7152 * g + 0.0722 * b);
    grey[at] = value;
    sum += value;
  }
  return { data: grey, width, height, mean: sum / grey.length };
}

async function cutOut(
  { path, toPicture, pxPerMm: own }: BlindFrame,
  box: ViewBox,
  pxPerMm: number,
): Promise<Rgb> {
  const photo = await readColour(path);
  for (const [x, y] of CORNERS) {
    const at = project(toPicture, { x: box.x + x * box.w, y: box.y + y * box.h });
    if (at.x < -1 || at.y < -1 || at.x > photo.width + 1 || at.y > photo.height + 1) {
      throw new PictureError('does not show all of the place');
    }
  }
  // What has more pixels than are shown is made smaller by means, not by leaving some out.
  const times = Math.max(0, Math.min(2, Math.round(Math.log2(own / pxPerMm))));
  let cut: Rgb = warped(photo, toPicture, box, pxPerMm * 2 ** times);
  for (let time = 0; time < times; time += 1) cut = halved(cut);
  return cut;
}

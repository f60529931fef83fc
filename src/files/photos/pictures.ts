import { WrongInputError } from '../../core/model/faults';
import { open, readFile } from 'node:fs/promises';
import sharp from 'sharp';
import { luminanceOf, type Pixels, type Raster } from '../../core/measures/image';
import { isHeic, kindOfPicture } from './picture-kinds';

// What may be decoded is one setting of the whole process, whichever thread says it last: it is said here only, and
// always the same. Photos are told by their first bytes, and opened as files; from memory also drawings, which are
// cards that were drawn here: a file never is one.
sharp.block({ operation: ['VipsForeignLoad'] });
sharp.unblock({
  operation: [
    'VipsForeignLoadJpeg',
    'VipsForeignLoadPng',
    'VipsForeignLoadWebp',
    'VipsForeignLoadSvgBuffer',
  ],
});
sharp.cache(false);

/** The most pixels of a picture that is read. */
const MOST_PIXELS = 60e6;

/** The picture cannot be read; the message says why and what to do. */
export class PictureError extends WrongInputError {
  override name = 'PictureError';
}

/** A part of a picture in whole pixels, as it is seen. */
export interface PixelRegion {
  x: number;
  y: number;
  w: number;
  h: number;
}

/** A picture's size as it is seen, its orientation applied. */
export interface PictureSize {
  width: number;
  height: number;
}

/** Opens a picture to be decoded; of an animation the first picture counts. */
export const openPicture = (path: string, { autoOrient = true } = {}) =>
  sharp(path, { autoOrient, limitInputPixels: MOST_PIXELS, failOn: 'warning', pages: 1 });

/** What of a picture is wrong, in words. */
export function describeFault(error: unknown): PictureError {
  const message = error instanceof Error ? error.message : '';
  if (/pixel limit/i.test(message)) {
    return new PictureError('has more than 60 megapixels: make it smaller');
  }
  return new PictureError('is broken: its pixels cannot be read to the end; export it again');
}

/** Whether the first bytes of a file are a picture that is read. @throws PictureError */
export async function checkKind(path: string): Promise<void> {
  const file = await open(path);
  try {
    const head = Buffer.alloc(64);
    const { bytesRead } = await file.read(head, 0, head.length, 0);
    const bytes = head.subarray(0, bytesRead);
    if (bytesRead === 0) throw new PictureError('is empty');
    if (kindOfPicture(bytes)) return await checkPasses(path);
    throw new PictureError(
      isHeic(bytes)
        ? 'is a HEIC picture: set the phone’s camera to the most compatible format, or export it as JPEG'
        : 'is no JPEG, PNG or WebP picture',
    );
  } finally {
    await file.close();
  }
}

/** A JPEG is decoded once for each of its passes: more than this, pixels by passes, takes over two seconds. */
const MOST_PASSED_PIXELS = 1.2e9;
/** What no camera and no program writes. */
const USUAL_PASSES = 16;

/** Refuses a JPEG whose many passes would take seconds to decode. @throws PictureError */
async function checkPasses(path: string): Promise<void> {
  const passes = await jpegPasses(path);
  if (passes <= USUAL_PASSES) return;
  const { width = 0, height = 0 } = await sharp(path, { limitInputPixels: MOST_PIXELS })
    .metadata()
    .catch((error: unknown) => {
      throw describeFault(error);
    });
  if (passes * width * height <= MOST_PASSED_PIXELS) return;
  throw new PictureError(
    `is a JPEG in ${passes} passes, which takes too long to decode: export it again without “progressive”`,
  );
}

/** How many passes (scans) a JPEG has; 0 of another kind of picture. */
async function jpegPasses(path: string): Promise<number> {
  const bytes = await readFile(path);
  if (bytes[0] !== 0xff || bytes[1] !== 0xd8) return 0;
  let passes = 0;
  for (
    let at = bytes.indexOf(0xff, 2);
    at >= 0 && at + 1 < bytes.length;
    at = bytes.indexOf(0xff, at + 1)
  ) {
    if (bytes[at + 1] === 0xda) passes += 1;
  }
  return passes;
}

/**
 * The luminance of a region of a picture, 8 or 16 bits, grey or colour, with the picture's size as
 * it is seen. Of an animation the first picture counts.
 *
 * @throws PictureError, also where the region is not within the picture
 */
export async function readRegion(
  path: string,
  region: PixelRegion,
): Promise<{ size: PictureSize; raster: Raster }> {
  await checkKind(path);
  const { size, isDeep } = await sizeOf(path);
  const { x, y, w, h } = region;
  if (x < 0 || y < 0 || w < 1 || h < 1 || x + w > size.width || y + h > size.height) {
    throw new PictureError(
      `the region ${x},${y},${w},${h} is not within the picture, which is ${size.width} × ${size.height} pixels`,
    );
  }
  await checkEnd(path);
  const picture = openPicture(path)
    .extract({ left: x, top: y, width: w, height: h })
    .removeAlpha()
    .toColourspace(isDeep ? 'rgb16' : 'srgb')
    .raw({ depth: isDeep ? 'ushort' : 'uchar' });
  try {
    const { data, info } = await picture.toBuffer({ resolveWithObject: true });
    const pixels: Pixels = {
      width: info.width,
      height: info.height,
      channels: info.channels,
      data: isDeep ? new Uint16Array(data.buffer, data.byteOffset, data.length / 2) : data,
    };
    return { size, raster: luminanceOf(pixels) };
  } catch (error) {
    throw describeFault(error);
  }
}

/**
 * A picture as it is seen, in three channels of 8 bits, whatever it has; on white where it is
 * see-through. @throws PictureError
 */
export async function readColour(path: string): Promise<Pixels & { data: Uint8Array }> {
  try {
    const { data, info } = await openPicture(path)
      .toColourspace('srgb')
      .flatten({ background: '#ffffff' })
      .raw({ depth: 'uchar' })
      .toBuffer({ resolveWithObject: true });
    const { width, height } = info;
    if (info.channels === 3) return { data, width, height, channels: 3 };
    const step = info.channels;
    const spread = Uint8Array.from(
      { length: width * height * 3 },
      (_, at) => data[Math.floor(at / 3) * step] ?? 0,
    );
    return { data: spread, width, height, channels: 3 };
  } catch (error) {
    throw describeFault(error);
  }
}

/** Reads the last row as it is stored: what is cut off or hurt on the way is found. @throws PictureError */
async function checkEnd(path: string): Promise<void> {
  try {
    const { width, height } = await openPicture(path, { autoOrient: false }).metadata();
    await openPicture(path, { autoOrient: false })
      .extract({ left: 0, top: height - 1, width, height: 1 })
      .raw()
      .toBuffer();
  } catch (error) {
    throw describeFault(error);
  }
}

/** A picture's size as it is seen. @throws PictureError */
export const pictureSize = async (path: string): Promise<PictureSize> => (await sizeOf(path)).size;

async function sizeOf(path: string): Promise<{ size: PictureSize; isDeep: boolean }> {
  try {
    const { autoOrient, depth } = await openPicture(path).metadata();
    return { size: autoOrient, isDeep: depth === 'ushort' };
  } catch (error) {
    throw describeFault(error);
  }
}

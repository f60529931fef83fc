import exifReader from 'exif-reader';
import { codesIn } from './codes';
import { fromPixels, halved, type Rgb } from './levels';
import { checkKind, openPicture, describeFault } from './pictures';
import type { MadePicture, PhotoFacts } from './task';

/** The smallest level's longer side is not over this, pixels. */
const SMALLEST = 512;
const QUALITY = 86;

/**
 * Looks into a photo: its size as it is seen, when it was taken, the codes in it; and makes what is
 * shown of it, which carries nothing of its file but the pixels.
 *
 * @throws PictureError
 */
export async function examinePhoto(path: string): Promise<PhotoFacts> {
  await checkKind(path);
  let full: Rgb;
  let takenAt: string | null;
  try {
    const { exif } = await openPicture(path).metadata();
    takenAt = exif ? timeOf(exif) : null;
    const { data, info } = await openPicture(path)
      .toColourspace('srgb')
      .flatten({ background: '#ffffff' })
      .raw({ depth: 'uchar' })
      .toBuffer({ resolveWithObject: true });
    full = threeChannels(data, info.width, info.height, info.channels);
  } catch (error) {
    throw describeFault(error);
  }
  const codes = await codesIn(full);
  const levels: MadePicture[] = [];
  for (let shown = full, level = 0; ; shown = halved(shown), level += 1) {
    const bytes = await fromPixels(shown).jpeg({ quality: QUALITY, mozjpeg: false }).toBuffer();
    levels.push({
      level,
      column: 0,
      row: 0,
      width: shown.width,
      height: shown.height,
      bytes: new Uint8Array(bytes),
    });
    if (Math.max(shown.width, shown.height) <= SMALLEST) break;
  }
  return { width: full.width, height: full.height, takenAt, codes, levels };
}

function threeChannels(data: Buffer, width: number, height: number, channels: number): Rgb {
  if (channels === 3) return { data, width, height, channels };
  const out = new Uint8Array(width * height * 3);
  for (let from = 0, to = 0; to < out.length; from += channels, to += 3) {
    out.fill(data[from] ?? 0, to, to + 3);
  }
  return { data: out, width, height, channels: 3 };
}

/**
 * When a photo was taken, by its own account, ISO 8601. A camera that does not say its zone is taken to
 * show the time of this place.
 */
function timeOf(exif: Buffer): string | null {
  try {
    const { Photo, Image } = exifReader(exif);
    const at = Photo?.DateTimeOriginal ?? Image?.DateTime;
    if (!(at instanceof Date) || !Number.isFinite(at.getTime())) return null;
    const clock = at.toISOString().slice(0, 19);
    const zone = Photo?.OffsetTimeOriginal;
    const stated = new Date(typeof zone === 'string' ? `${clock}${zone}` : clock);
    return Number.isFinite(stated.getTime()) ? stated.toISOString() : null;
  } catch {
    // What a camera has written badly is as if it had written nothing.
    return null;
  }
}

import { mkdir, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import sharp from 'sharp';
import { register, RegistrationError, warped, type Pixels } from '../../core/measures/image';
import { groupBy } from '../../core/model/study';
import { PictureError, readColour } from '../photos/pictures';
import type { FrameTask } from './task';

/** Pixels of a frame's longer side: a row of six is sharp on a wide screen, a card is too. */
const LONGEST = 640;
const QUALITY = 72;
/** Contrast is raised by no more than this: noise is not to look like a defect. */
const MOST_GAIN = 3;

/**
 * Cuts photos to their places, upright and to scale, without anything that the camera wrote. Those of
 * one place get the same levels, so that they can be compared.
 *
 * @returns those that could not be shown, with the reason
 */
export async function cutFrames(folder: string, places: readonly FrameTask[]): Promise<string[]> {
  const notes: string[] = [];
  const cut = new Map<string, Pixels>();
  const all = places.flatMap(({ box, frames }) => frames.map((frame) => ({ ...frame, box })));
  // A photo that shows several places is opened once.
  const groups = [...groupBy(all, (frame) => frame.source)];
  const opening = (at: number) => {
    const source = groups[at]?.[0];
    return source === undefined
      ? null
      : readColour(source).catch((error: unknown) => asNote(error));
  };
  let next = opening(0);
  for (const [at, [, frames]] of groups.entries()) {
    const photo = await next;
    if (photo === null) break;
    // The next one is unlocked while this one is cut.
    next = opening(at + 1);
    for (const { file, marks, box } of frames) {
      try {
        if (typeof photo === 'string') throw new PictureError(photo);
        cut.set(file, cutFrame(photo, marks, box));
      } catch (error) {
        notes.push(`${file} ${asNote(error)}`);
      }
    }
  }
  for (const { frames } of places) {
    const own = frames.flatMap(({ file }) => {
      const pixels = cut.get(file);
      return pixels ? [{ file, pixels }] : [];
    });
    const { gain, offset } = levelsOf(own.map(({ pixels }) => pixels));
    for (const { file, pixels } of own) {
      const path = join(folder, file);
      await mkdir(dirname(path), { recursive: true });
      const { data, width, height, channels } = pixels;
      const raw = { width, height, channels: channels as 1 | 2 | 3 | 4 };
      const picture = sharp(data, { raw }).linear(gain, offset);
      await writeFile(path, await picture.jpeg({ quality: QUALITY, mozjpeg: true }).toBuffer());
    }
  }
  return notes;
}

/** What is wrong with a photo or its marks. @throws whatever else went wrong */
function asNote(error: unknown): string {
  if (error instanceof PictureError || error instanceof RegistrationError) return error.message;
  throw error;
}

function cutFrame(
  photo: Parameters<typeof warped>[0],
  marks: FrameTask['frames'][number]['marks'],
  box: FrameTask['box'],
): Pixels {
  const { toPicture, px_per_mm } = register(marks, box);
  return warped(photo, toPicture, box, Math.min(px_per_mm, LONGEST / Math.max(box.w, box.h)));
}

/** One stretch for all pictures of a place: from their 1st to their 99th percentile. */
function levelsOf(pictures: readonly Pixels[]): { gain: number; offset: number } {
  const counts = new Float64Array(256);
  for (const { data } of pictures)
    for (const value of data) counts[value] = (counts[value] ?? 0) + 1;
  const all = counts.reduce((sum, count) => sum + count, 0);
  const at = (share: number): number => {
    let seen = 0;
    for (let value = 0; value < 256; value += 1) {
      seen += counts[value] ?? 0;
      if (seen >= share * all) return value;
    }
    return 255;
  };
  const [low, high] = [at(0.01), at(0.99)];
  const gain = Math.min(MOST_GAIN, Math.max(1, 220 / Math.max(1, high - low)));
  return { gain, offset: 128 - (gain * (low + high)) / 2 };
}

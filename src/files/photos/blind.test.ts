import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { blindPictures, LEAST_PADDING, paddedJpeg, PictureError } from '.';

let folder: string;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'vergleich-blind-'));
});
afterAll(() => rm(folder, { recursive: true, force: true }));

/** A grey photo with a darker disc, as a camera writes it: with an EXIF comment. */
async function photo(name: string, side: number, grey: number): Promise<string> {
  const path = join(folder, name);
  const data = Buffer.alloc(side * side * 3, grey);
  const r = side / 8;
  for (let y = 0; y < side; y += 1) {
    for (let x = 0; x < side; x += 1) {
      if (Math.hypot(x - side / 2, y - side / 2) < r)
        data.fill(grey / 2, 3 * (y * side + x), 3 * (y * side + x) + 3);
    }
  }
  await sharp(data, { raw: { width: side, height: side, channels: 3 } })
    .withExif({ IFD0: { Artist: 'KM at the bench' } })
    .jpeg({ quality: 97 })
    .toFile(path);
  return path;
}

/** The photo shows 20 × 20 mm of its view, the middle of which is 0, y upwards. */
const frameOf = (path: string, side: number) => ({
  path,
  pxPerMm: side / 20,
  toPicture: [side / 20, 0, side / 2, 0, -side / 20, side / 2, 0, 0, 1],
});

const PLACE = { x: -5, y: -4, w: 10, h: 8 };

describe('pictures for judges', () => {
  it('are as large and as sharp as one another, and hold nothing but pixels', async () => {
    const frames = [
      frameOf(await photo('fine.jpg', 1600, 120), 1600),
      frameOf(await photo('coarse.jpg', 400, 120), 400),
    ];
    const pictures = await blindPictures(frames, PLACE, 20, 'as-taken');
    const facts = await Promise.all(pictures.map((bytes) => sharp(bytes).metadata()));
    expect(facts.map(({ width, height, channels }) => [width, height, channels])).toEqual([
      [200, 160, 3],
      [200, 160, 3],
    ]);
    for (const [at, bytes] of pictures.entries()) {
      expect(facts[at]).not.toHaveProperty('exif');
      expect(Buffer.from(bytes).includes('KM at the bench')).toBe(false);
    }
    // The disc of 2.5 mm about the middle is where it was, at 20 pixels a millimetre.
    for (const bytes of pictures) {
      const { data, info } = await sharp(bytes)
        .greyscale()
        .raw()
        .toBuffer({ resolveWithObject: true });
      const at = (x: number, y: number) => data[y * info.width + x] ?? 0;
      expect(at(100, 80)).toBeLessThan(70);
      expect(at(100 + 60, 80)).toBeGreaterThan(110);
      expect(at(100, 80 - 40)).toBeLessThan(70);
    }
  });

  it('are equally bright and grey where that is wanted', async () => {
    const frames = [
      frameOf(await photo('dark.jpg', 400, 80), 400),
      frameOf(await photo('bright.jpg', 400, 160), 400),
    ];
    const means = async (levels: 'matched' | 'as-taken') =>
      Promise.all(
        (await blindPictures(frames, PLACE, 20, levels)).map(async (bytes) =>
          (await sharp(bytes).stats()).channels.map(({ mean }) => mean),
        ),
      );
    const [dark = [], bright = []] = await means('matched');
    expect([dark.length, bright.length]).toEqual([1, 1]);
    expect(Math.abs((dark[0] ?? 0) - (bright[0] ?? 0))).toBeLessThan(1.5);
    const [own = [], other = []] = await means('as-taken');
    expect((other[0] ?? 0) / (own[0] ?? 1)).toBeGreaterThan(1.8);
  });

  it('are refused where a photo does not show the place', async () => {
    const frames = [frameOf(await photo('small.jpg', 400, 120), 400)];
    await expect(blindPictures(frames, { ...PLACE, w: 30 }, 20, 'as-taken')).rejects.toThrow(
      PictureError,
    );
  });

  it('are made longer by noise that no decoder shows', async () => {
    const frames = [frameOf(await photo('pad.jpg', 400, 120), 400)];
    const [bytes = new Uint8Array()] = await blindPictures(frames, PLACE, 20, 'as-taken');
    const pixels = (picture: Uint8Array) => sharp(picture).raw().toBuffer();
    for (const more of [LEAST_PADDING, 5, 1000, 65_536, 65_537, 65_538, 65_541, 200_000]) {
      const padded = paddedJpeg(bytes, bytes.length + more);
      expect(padded).toHaveLength(bytes.length + more);
      expect((await pixels(padded)).equals(await pixels(bytes))).toBe(true);
    }
    // Twice the same picture is twice another file.
    expect(paddedJpeg(bytes, bytes.length + 500)).not.toEqual(
      paddedJpeg(bytes, bytes.length + 500),
    );
    expect(() => paddedJpeg(bytes, bytes.length + LEAST_PADDING - 1)).toThrow(RangeError);
    expect(() => paddedJpeg(new Uint8Array(100), 200)).toThrow(RangeError);
  });
});

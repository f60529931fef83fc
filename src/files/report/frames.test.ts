import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { cutFrames } from './frames';

const folder = mkdtempSync(join(tmpdir(), 'frames-test-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** A photo of 20 × 10 mm at 20 px/mm: grey, its left half darker by twice the step; written by a camera. */
async function photo(name: string, grey: number, step: number): Promise<string> {
  const [width, height] = [400, 200];
  const data = Buffer.alloc(width * height * 3);
  for (let at = 0; at < width * height; at += 1) {
    data.fill(at % width < width / 2 ? grey - step : grey + step, 3 * at, 3 * at + 3);
  }
  const path = join(folder, name);
  await sharp(data, { raw: { width, height, channels: 3 } })
    .withExif({ IFD0: { Artist: 'somebody', Model: 'a camera' } })
    .jpeg({ quality: 95 })
    .toFile(path);
  return path;
}
const MARKS = [
  { u_px: 0, v_px: 200, x_mm: 0, y_mm: 0 },
  { u_px: 400, v_px: 200, x_mm: 20, y_mm: 0 },
];
const BOX = { x: 2, y: 1, w: 16, h: 8 };

/** Mean levels of the left and the right half of a picture. */
async function halves(name: string): Promise<[number, number]> {
  const { data, info } = await sharp(join(folder, name))
    .greyscale()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const sums = [0, 0];
  for (let at = 0; at < data.length; at += 1) {
    const half = at % info.width < info.width / 2 ? 0 : 1;
    sums[half] = (sums[half] ?? 0) + (data[at] ?? 0);
  }
  const each = data.length / 2;
  return [(sums[0] ?? 0) / each, (sums[1] ?? 0) / each];
}

let strong: string;
let weak: string;
beforeAll(async () => {
  [strong, weak] = [await photo('strong.jpg', 120, 30), await photo('weak.jpg', 120, 10)];
});

describe('photos of one place', () => {
  it('are cut to it, to scale, without what the camera wrote', async () => {
    const frames = [{ source: strong, marks: MARKS, file: 'photos/a.jpg' }];
    expect(await cutFrames(folder, [{ box: BOX, frames }])).toEqual([]);
    const facts = await sharp(join(folder, 'photos/a.jpg')).metadata();
    expect([facts.width, facts.height]).toEqual([320, 160]);
    expect(facts.exif).toBeUndefined();
    expect(readFileSync(join(folder, 'photos/a.jpg')).includes('somebody')).toBe(false);
  });

  it('get one and the same contrast, so that the weaker stays the weaker', async () => {
    const frames = [
      { source: strong, marks: MARKS, file: 'photos/s.jpg' },
      { source: weak, marks: MARKS, file: 'photos/w.jpg' },
    ];
    await cutFrames(folder, [{ box: BOX, frames }]);
    const [[sl, sr], [wl, wr]] = [await halves('photos/s.jpg'), await halves('photos/w.jpg')];
    // Their steps are as 30 to 10, before and after.
    expect((sr - sl) / (wr - wl)).toBeCloseTo(3, 0);
    expect(sr - sl).toBeGreaterThan(60);
  });

  it('are stretched no more than threefold: noise is not to look like a defect', async () => {
    const flat = await photo('flat.jpg', 128, 2);
    await cutFrames(folder, [
      { box: BOX, frames: [{ source: flat, marks: MARKS, file: 'photos/f.jpg' }] },
    ]);
    const [left, right] = await halves('photos/f.jpg');
    expect(right - left).toBeGreaterThan(8);
    expect(right - left).toBeLessThan(16);
  });

  it('that cannot be shown are named with the reason, and the others are shown', async () => {
    const broken = join(folder, 'broken.jpg');
    writeFileSync(broken, readFileSync(strong).subarray(0, 900));
    const notes = await cutFrames(folder, [
      {
        box: BOX,
        frames: [
          { source: broken, marks: MARKS, file: 'photos/1.jpg' },
          { source: strong, marks: MARKS.slice(0, 1), file: 'photos/2.jpg' },
          { source: weak, marks: MARKS, file: 'photos/3.jpg' },
        ],
      },
    ]);
    expect(notes).toHaveLength(2);
    expect(notes.join('\n')).toContain('photos/1.jpg is broken');
    expect(notes.join('\n')).toContain('photos/2.jpg a photo is tied to a view by two marks');
    expect((await sharp(join(folder, 'photos/3.jpg')).metadata()).width).toBe(320);
  });
});

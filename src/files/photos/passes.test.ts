import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { afterAll, describe, expect, it } from 'vitest';
import { checkKind } from './pictures';

const folder = mkdtempSync(join(tmpdir(), 'vergleich-passes-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** A progressive JPEG whose last pass comes so many times more: each is decoded over the whole picture. */
async function jpegOf(name: string, [width, height]: [number, number], more: number) {
  const bytes = await sharp({ create: { width, height, channels: 3, background: '#a0a0a0' } })
    .jpeg({ progressive: true })
    .toBuffer();
  const last = bytes.lastIndexOf(Buffer.from([0xff, 0xda]));
  const pass = bytes.subarray(last, -2);
  const path = join(folder, name);
  writeFileSync(
    path,
    Buffer.concat([bytes.subarray(0, -2), ...Array<Buffer>(more).fill(pass), bytes.subarray(-2)]),
  );
  return path;
}

describe('a JPEG in passes', () => {
  it('as programs write them is taken, however large', async () => {
    await expect(checkKind(await jpegOf('usual.jpg', [7000, 6000], 0))).resolves.toBeUndefined();
  });

  it('is refused where its passes take too long, with the reason', async () => {
    const path = await jpegOf('many.jpg', [7000, 6000], 40);
    await expect(checkKind(path)).rejects.toThrow(
      /is a JPEG in \d\d passes, which takes too long to decode: export it again without “progressive”/,
    );
  });

  it('is taken where it is small, whatever its passes', async () => {
    await expect(checkKind(await jpegOf('small.jpg', [640, 480], 40))).resolves.toBeUndefined();
  });
});

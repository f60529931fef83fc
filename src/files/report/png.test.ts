import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { expect, it, vi } from 'vitest';
import { pngOf } from './png';

const CARD =
  '<svg xmlns="http://www.w3.org/2000/svg" width="40" height="20"><rect width="40" height="20" fill="#7e2358"/></svg>';

it('a card is drawn whatever other threads have begun to read photos meanwhile', async () => {
  expect(await sharp(await pngOf(CARD)).metadata()).toMatchObject({ width: 40, height: 20 });
  // Another thread of the process that reads photos says anew what may be decoded.
  vi.resetModules();
  await import('../photos/pictures');
  expect(await sharp(await pngOf(CARD)).metadata()).toMatchObject({ format: 'png' });
});

it('a drawing in a file is opened by nobody', async () => {
  const folder = await mkdtemp(join(tmpdir(), 'vergleich-png-'));
  const path = join(folder, 'photo.jpg');
  await writeFile(path, CARD);
  await expect(sharp(path).metadata()).rejects.toThrow(/unsupported image format/);
  await rm(folder, { recursive: true });
});

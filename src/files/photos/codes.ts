import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { prepareZXingModule, readBarcodes } from 'zxing-wasm/reader';
import type { PhotoFacts } from './task';
import { halved, type Rgb } from './levels';

/** More pixels than this are halved before codes are looked for: they are large enough then. */
const MOST_SEARCHED = 13e6;
const MOST_CODES = 24;

let reader: Promise<unknown> | null = null;

/** The reader of codes, its module from this installation and from nowhere else. */
async function openReader(): Promise<void> {
  reader ??= (async () => {
    const { resolve } = createRequire(import.meta.url);
    const file = resolve('zxing-wasm/reader/zxing_reader.wasm');
    const wasmBinary = new Uint8Array(await readFile(file)).buffer;
    await prepareZXingModule({ overrides: { wasmBinary }, fireImmediately: true });
  })();
  await reader;
}

/** The QR codes in a picture, with their corners from the upper left on, in its own pixels. */
export async function codesIn(picture: Rgb): Promise<PhotoFacts['codes']> {
  await openReader();
  let [searched, factor] = [picture, 1];
  while (searched.width * searched.height > MOST_SEARCHED) {
    searched = halved(searched);
    factor *= 2;
  }
  const { width, height, data, channels } = searched;
  const rgba = new Uint8ClampedArray(width * height * 4).fill(255);
  for (let from = 0, to = 0; from < data.length; from += channels, to += 4) {
    rgba[to] = data[from] ?? 0;
    rgba[to + 1] = data[from + 1] ?? 0;
    rgba[to + 2] = data[from + 2] ?? 0;
  }
  const found = await readBarcodes({ data: rgba, width, height, colorSpace: 'srgb' } as ImageData, {
    formats: ['QRCode'],
    maxNumberOfSymbols: MOST_CODES,
    tryInvert: false,
  });
  return found
    .filter(({ isValid }) => isValid)
    .map(({ text, position }) => ({
      text,
      corners: (['topLeft', 'topRight', 'bottomRight', 'bottomLeft'] as const).map((corner) => ({
        u: position[corner].x * factor,
        v: position[corner].y * factor,
      })),
    }));
}

import { warped, type Projection, type ViewBox } from '../../core/measures/image';
import { fromPixels, halved, type Rgb } from './levels';
import { readColour } from './pictures';
import type { RectifiedTiles, MadePicture } from './task';

/** Pixels of a tile's sides. */
const TILE = 512;
const QUALITY = 86;
const AT_ONCE = 4;

/**
 * Lays a registered photo onto its view and cuts it into tiles, level by level until one tile holds
 * all of it.
 *
 * @throws PictureError
 */
export async function layPhoto(
  path: string,
  toPicture: Projection,
  box: ViewBox,
  pxPerMm: number,
): Promise<RectifiedTiles> {
  let shown: Rgb = warped(await readColour(path), toPicture, box, pxPerMm);
  const { width, height } = shown;
  const tiles: MadePicture[] = [];
  let level = 0;
  for (; ; level += 1, shown = halved(shown)) {
    tiles.push(...(await tilesOf(shown, level)));
    if (shown.width <= TILE && shown.height <= TILE) break;
  }
  return { width, height, tile: TILE, levels: level + 1, tiles };
}

async function tilesOf(shown: Rgb, level: number): Promise<MadePicture[]> {
  const [columns, rows] = [Math.ceil(shown.width / TILE), Math.ceil(shown.height / TILE)];
  const places = Array.from({ length: columns * rows }, (_, at) => ({
    column: at % columns,
    row: Math.floor(at / columns),
  }));
  const out: MadePicture[] = [];
  for (let at = 0; at < places.length; at += AT_ONCE) {
    const some = places.slice(at, at + AT_ONCE).map(async ({ column, row }) => {
      const tile = cut(shown, column * TILE, row * TILE);
      const bytes = new Uint8Array(await fromPixels(tile).jpeg({ quality: QUALITY }).toBuffer());
      return { level, column, row, width: tile.width, height: tile.height, bytes };
    });
    out.push(...(await Promise.all(some)));
  }
  return out;
}

function cut({ data, width, height, channels }: Rgb, left: number, top: number): Rgb {
  const [w, h] = [Math.min(TILE, width - left), Math.min(TILE, height - top)];
  const out = new Uint8Array(w * h * channels);
  for (let y = 0; y < h; y += 1) {
    const from = ((top + y) * width + left) * channels;
    out.set(data.subarray(from, from + w * channels), y * w * channels);
  }
  return { data: out, width: w, height: h, channels };
}

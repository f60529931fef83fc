import type { ShownPhoto } from '../../contract/photos';
import { tileAddress } from './photo-address';

/** What part of a view is seen: the millimetres in the middle, and screen pixels a millimetre. */
export interface Place {
  x: number;
  y: number;
  scale: number;
}

/** A photo whose view is laid flat. */
export type RectifiedPhoto = ShownPhoto & { laid: NonNullable<ShownPhoto['laid']> };

export const hasRectification = (photo: ShownPhoto): photo is RectifiedPhoto =>
  photo.laid !== null && photo.isRectified;

/** More tiles than this are not kept, the ones used longest ago go first: some 200 MB of pixels. */
const MOST_KEPT = 200;

/** Tiles of photos, loaded as they are wanted. */
export class Tiles {
  readonly #kept = new Map<string, { image: HTMLImageElement; isThere: boolean }>();
  readonly #onLoaded: () => void;

  constructor(onLoaded: () => void) {
    this.#onLoaded = onLoaded;
  }

  /** The tile's picture; null while it is on its way. */
  get(address: string, isWanted = true): HTMLImageElement | null {
    const known = this.#kept.get(address);
    if (known) {
      this.#kept.delete(address);
      this.#kept.set(address, known);
      return known.isThere ? known.image : null;
    }
    if (!isWanted) return null;
    const entry = { image: new Image(), isThere: false };
    entry.image.onload = () => {
      entry.isThere = true;
      this.#onLoaded();
    };
    entry.image.src = address;
    this.#kept.set(address, entry);
    if (this.#kept.size > MOST_KEPT) {
      const [oldest] = this.#kept.keys();
      if (oldest !== undefined) this.#kept.delete(oldest);
    }
    return null;
  }
}

/** The level of which a pixel is about one of the screen. */
export function levelOf({ laid }: RectifiedPhoto, scale: number): number {
  const own = laid.width / laid.box.w;
  return Math.max(0, Math.min(laid.levels - 1, Math.floor(Math.log2(own / scale) + 0.3)));
}

interface Canvas {
  context: CanvasRenderingContext2D;
  width: number;
  height: number;
}

/** Draws what is seen of a photo; where a tile is still on its way, a coarser one that is there. */
export function drawPhoto(
  { context, width, height }: Canvas,
  tiles: Tiles,
  studyId: string,
  photo: RectifiedPhoto,
  place: Place,
): void {
  const wanted = levelOf(photo, place.scale);
  for (let level = photo.laid.levels - 1; level >= wanted; level -= 1) {
    const { laid } = photo;
    const side = (laid.tile * 2 ** level * laid.box.w) / laid.width;
    const [columns, rows] = [
      Math.ceil(Math.max(1, laid.width >> level) / laid.tile),
      Math.ceil(Math.max(1, laid.height >> level) / laid.tile),
    ];
    const left = place.x - width / 2 / place.scale - laid.box.x;
    const top = laid.box.y + laid.box.h - (place.y + height / 2 / place.scale);
    const first = (from: number) => Math.max(0, Math.floor(from / side));
    const last = (to: number, count: number) => Math.min(count - 1, Math.floor(to / side));
    const [toColumn, toRow] = [
      last(left + width / place.scale, columns),
      last(top + height / place.scale, rows),
    ];
    for (let row = first(top); row <= toRow; row += 1) {
      for (let column = first(left); column <= toColumn; column += 1) {
        const address = tileAddress(studyId, photo, laid.edition, { level, column, row });
        const isWanted = level === wanted || level === laid.levels - 1;
        const image = tiles.get(address, isWanted);
        if (!image) continue;
        const mm = (image.naturalWidth * 2 ** level * laid.box.w) / laid.width;
        const high = (image.naturalHeight * 2 ** level * laid.box.w) / laid.width;
        context.drawImage(
          image,
          (column * side - left) * place.scale,
          (row * side - top) * place.scale,
          // Half a pixel more, so that no seam is seen.
          mm * place.scale + 0.5,
          high * place.scale + 0.5,
        );
      }
    }
  }
}

/** Mean grey of a photo, 0…255, by its coarsest tile; null while that is on its way. */
export function meanGrey(tiles: Tiles, studyId: string, photo: RectifiedPhoto): number | null {
  const { laid } = photo;
  const at = { level: laid.levels - 1, column: 0, row: 0 };
  const image = tiles.get(tileAddress(studyId, photo, laid.edition, at));
  if (!image) return null;
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [64, 64];
  const context = canvas.getContext('2d', { willReadFrequently: true });
  if (!context) return null;
  context.drawImage(image, 0, 0, 64, 64);
  const { data } = context.getImageData(0, 0, 64, 64);
  let sum = 0;
  for (let pixel = 0; pixel < data.length; pixel += 4) sum += data[pixel + 1] ?? 0;
  return sum / (64 * 64);
}

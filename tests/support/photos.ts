import { createHash } from 'node:crypto';
import QRCode from 'qrcode';
import sharp from 'sharp';
import type { Api } from './api';

/** A QR code's modules at a place of a picture. */
export interface DrawnCode {
  text: string;
  left: number;
  top: number;
  /** Pixels a module. */
  module: number;
}

/** Grey levels of a picture as a function of its pixels, with codes drawn on it, as raw RGB. */
export function drawn(
  width: number,
  height: number,
  grey: (x: number, y: number) => number,
  codes: readonly DrawnCode[] = [],
): Buffer {
  const data = Buffer.alloc(width * height * 3);
  const set = (x: number, y: number, value: number) => {
    const at = 3 * (y * width + x);
    data.fill(Math.max(0, Math.min(255, Math.round(value))), at, at + 3);
  };
  for (let y = 0; y < height; y += 1) for (let x = 0; x < width; x += 1) set(x, y, grey(x, y));
  for (const { text, left, top, module } of codes) {
    const { modules } = QRCode.create(text, { errorCorrectionLevel: 'M' });
    const border = 3;
    const side = (modules.size + 2 * border) * module;
    for (let y = 0; y < side; y += 1) {
      for (let x = 0; x < side; x += 1) {
        const [column, row] = [Math.floor(x / module) - border, Math.floor(y / module) - border];
        const isIn = column >= 0 && row >= 0 && column < modules.size && row < modules.size;
        set(left + x, top + y, isIn && modules.get(row, column) ? 10 : 250);
      }
    }
  }
  return data;
}

/** Raw RGB as a JPEG, with an orientation where one is given. */
export function jpegOf(
  data: Buffer,
  width: number,
  height: number,
  orientation?: number,
): Promise<Buffer> {
  const picture = sharp(data, { raw: { width, height, channels: 3 } });
  return (orientation ? picture.withMetadata({ orientation }) : picture)
    .jpeg({ quality: 92 })
    .toBuffer();
}

/** What the list of photos says of one. */
export interface ListedPhoto {
  path: string;
  version: string;
  state: string;
  message: string | null;
  width: number | null;
  height: number | null;
  codes: string[];
  filed: { specimen_id: string; view: string | null; light: string | null } | null;
  registration: { kind: string; px_per_mm: number; tilt_deg: number } | null;
  isRectified: boolean;
  laid: { edition: string; levels: number } | null;
  measures: { measure_id: string; value: number | null; found: string | null }[];
}

/** Announces a photo and sends its bytes. */
export async function sendPhoto(
  { call }: Api,
  study: string,
  name: string,
  content: Uint8Array,
  told?: object,
) {
  const sha256 = createHash('sha256').update(content).digest('hex');
  const base = `/studies/${study}/photos`;
  const announced = await call('POST', base, {
    name,
    bytes: content.length,
    sha256,
    ...(told && { told }),
  });
  if (announced.status !== 200 || 'path' in announced.content) return announced;
  return call('PUT', `${base}/uploads/${sha256}?offset=0`, content as BodyInit);
}

/** Waits until a photo is no longer being made. */
export async function made({ get }: Api, study: string, path: string): Promise<ListedPhoto> {
  for (let look = 0; look < 600; look += 1) {
    const list = await get<ListedPhoto[]>(`/studies/${study}/photos`);
    const found = list.find((photo) => photo.path === path);
    if (found && found.state !== 'waiting' && (found.registration === null || found.isRectified))
      return found;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Error(`${path} was not made in a minute`);
}

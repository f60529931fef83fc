import { createWriteStream } from 'node:fs';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { v7 as uuid } from 'uuid';
import * as z from 'zod';
import { FIGURE_OF, type Measured, type MeasureValue } from '../../core/measures/image';
import { TABLES } from '../../core/model/study';
import {
  deleteRow,
  findPicture,
  findRow,
  insertRow,
  listRowsBy,
  NotFoundError,
  readFile,
  writeStudy,
  type Database,
  type Write,
} from '../../data';
import type { PhotoTask } from '../../files/photos';
import { withFolder } from '../../files/temporary';
import type { App } from '../app';
import { RequestError } from '../http/problem';
import { filedPhoto } from './filing';
import { registeredPhoto } from './registration';

const row = TABLES.photo_measures.row.shape;

/** A region that is to be measured on photos, each with what its profile says. */
export const measureSchema = z.strictObject({
  measure: row.measure,
  unit: row.unit,
  x: row.x,
  y: row.y,
  w: row.w,
  h: row.h,
  background: row.background.optional(),
  feature: row.feature.optional(),
  photos: z
    .array(
      z.strictObject({
        path: row.path,
        layer_height_mm: row.layer_height_mm.optional(),
        speed_mm_s: row.speed_mm_s.optional(),
      }),
    )
    .min(1)
    .max(24)
    .refine((photos) => new Set(photos.map(({ path }) => path)).size === photos.length, {
      message: 'a photo is listed twice',
    }),
});

export type MeasureAsked = z.infer<typeof measureSchema>;
type AskedPhoto = MeasureAsked['photos'][number];

/** A measure that was kept, with all its values. */
export interface KeptMeasure extends Measured {
  measure_id: string;
  path: string;
  px_per_mm: number;
}

/** What a photo's pixels are worth: they are measured by it, and it must be the same when it is kept. */
interface Scale {
  px_per_mm: number;
  tied: Awaited<ReturnType<typeof registeredPhoto>>;
}

/**
 * Measures a region on photos and keeps what came out with their specimens: all of them, or none where
 * one cannot be measured.
 */
export async function measureOn(
  app: App,
  studyId: string,
  asked: MeasureAsked,
  who: string | null,
): Promise<KeptMeasure[]> {
  const { db } = app;
  const found: (KeptMeasure & { photo: AskedPhoto; scale: Scale })[] = [];
  for (const photo of asked.photos) {
    const scale = await scaleOf(app, db, studyId, photo.path, asked.unit);
    const measured = await measureOne(app, studyId, asked, photo, scale);
    const { px_per_mm } = scale;
    found.push({ measure_id: uuid(), path: photo.path, px_per_mm, photo, scale, ...measured });
  }
  await writeStudy(db, studyId, who, async (write) => {
    for (const one of found) {
      // What the figures were computed by must still stand.
      const now = await scaleOf(app, write.db, studyId, one.path, asked.unit);
      const isSame =
        now.px_per_mm === one.px_per_mm && now.tied?.edition === one.scale.tied?.edition;
      if (!isSame) {
        throw new RequestError(
          409,
          `The marks of ${one.path} were changed by someone else. Measure again.`,
        );
      }
      await keep(write, asked, one.photo, one);
    }
  });
  return found.map(({ photo: _, scale: __, ...kept }) => kept);
}

async function scaleOf(
  app: App,
  db: Database,
  studyId: string,
  path: string,
  unit: MeasureAsked['unit'],
): Promise<Scale> {
  const { photo } = await filedPhoto({ db, studyId }, path);
  const tied = await registeredPhoto(app, db, studyId, photo.specimen_id, path);
  if (unit === 'mm' && !tied) {
    throw new RequestError(
      422,
      'A region in millimetres needs a photo that is tied to its view by marks.',
    );
  }
  const px_per_mm = tied?.registration.px_per_mm ?? photo.px_per_mm;
  if (px_per_mm === null) {
    throw new RequestError(
      422,
      'The photo’s scale is not known: set marks on it, or say how many pixels a millimetre has.',
    );
  }
  return { px_per_mm, tied };
}

async function measureOne(
  app: App,
  studyId: string,
  asked: MeasureAsked,
  photo: AskedPhoto,
  { px_per_mm, tied }: Scale,
): Promise<Measured> {
  const { db, photographers } = app;
  const picture = await findPicture(db, studyId, photo.path);
  if (!picture) throw new NotFoundError(`There is no photo ${photo.path} in this study.`);
  const { x, y, w, h } = asked;
  const outcome = await withFolder('measure', async (folder) => {
    const path = join(folder, 'photo');
    await pipeline(readFile(db, picture.sha256), createWriteStream(path));
    const task: PhotoTask = {
      do: 'measure',
      path,
      measure: asked.measure,
      options: {
        px_per_mm,
        layer_height_mm: photo.layer_height_mm ?? null,
        speed_mm_s: photo.speed_mm_s ?? null,
      },
      of:
        asked.unit === 'mm' && tied
          ? { unit: 'mm', region: { x, y, w, h }, toPicture: tied.registration.toPicture }
          : { unit: 'px', region: wholePixels(asked) },
    };
    return await photographers.run(task);
  });
  if (outcome.isRefused) {
    throw new RequestError(422, `The photo ${picture.name}: ${outcome.message}.`);
  }
  if (!('measured' in outcome)) throw new Error('the thread did not measure');
  return outcome.measured;
}

const wholePixels = ({ x, y, w, h }: MeasureAsked) => ({
  x: Math.round(x),
  y: Math.round(y),
  w: Math.round(w),
  h: Math.round(h),
});

/** A value as it is kept: a number with its interval, where it has one. */
function valueOf(value: MeasureValue): {
  value: number | null;
  low: number | null;
  high: number | null;
} {
  if (value !== null && typeof value === 'object') {
    return { value: value.estimate, low: value.low, high: value.high };
  }
  return { value: typeof value === 'boolean' ? Number(value) : value, low: null, high: null };
}

async function keep(
  write: Write,
  asked: MeasureAsked,
  { path, layer_height_mm, speed_mm_s }: AskedPhoto,
  { measure_id, values }: KeptMeasure,
): Promise<void> {
  const { photos: _, ...region } = asked;
  const { photo } = await filedPhoto(write, path);
  const figure = FIGURE_OF[asked.measure];
  const { found } = values;
  await insertRow(
    write,
    'photo_measures',
    TABLES.photo_measures.row.parse({
      ...region,
      ...(asked.unit === 'px' && wholePixels(asked)),
      path,
      layer_height_mm,
      speed_mm_s,
      measure_id,
      specimen_id: photo.specimen_id,
      operator: write.who,
      at: new Date().toISOString(),
      value_key: figure,
      ...valueOf(values[figure] ?? null),
      found: typeof found === 'boolean' ? String(found) : null,
    }),
  );
  for (const [key, value] of Object.entries(values)) {
    if (key === figure || key === 'found') continue;
    await insertRow(write, 'photo_values', { measure_id, key, ...valueOf(value) });
  }
}

/** Takes a measure out, with its values. */
export const removeMeasure = (
  app: App,
  studyId: string,
  id: string,
  who: string | null,
): Promise<void> =>
  writeStudy(app.db, studyId, who, async (write) => {
    const { db } = write;
    const { row_version } = await findRow(db, studyId, 'photo_measures', { measure_id: id });
    for (const value of await listRowsBy(db, studyId, 'photo_values', 'measure_id', id)) {
      const key = { measure_id: id, key: value.key };
      await deleteRow(write, 'photo_values', key, value.row_version);
    }
    await deleteRow(write, 'photo_measures', { measure_id: id }, row_version);
  });

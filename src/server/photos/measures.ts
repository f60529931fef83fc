import { createWriteStream } from 'node:fs';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { v7 as uuid } from 'uuid';
import * as z from 'zod';
import { FIGURE_OF, type Measured, type MeasureValue } from '../../core/image';
import { TABLES } from '../../core/study';
import {
  deleteRow,
  findPicture,
  findRow,
  insertRow,
  listRowsBy,
  NotFoundError,
  readFile,
  writeStudy,
} from '../../data';
import type { PhotoOutcome, PhotoTask } from '../../files/photos';
import { withFolder } from '../../files/temporary';
import { app } from '../app';
import { RequestError } from '../http/problem';
import { filedPhoto } from './filing';
import { tiedPhoto } from './registration';

const row = TABLES.photo_measures.row.shape;

/** A region of a photo that is to be measured. */
export const measureSchema = z.strictObject({
  path: row.path,
  measure: row.measure,
  x: row.x,
  y: row.y,
  w: row.w,
  h: row.h,
  unit: row.unit,
  layer_height_mm: row.layer_height_mm.optional(),
  speed_mm_s: row.speed_mm_s.optional(),
  background: row.background.optional(),
});

export type MeasureAsked = z.infer<typeof measureSchema>;

/** A measure that was kept, with all its values. */
export interface KeptMeasure extends Measured {
  measure_id: string;
  px_per_mm: number;
}

/** Measures a region of a photo and keeps what came out with the specimen. */
export async function measureOn(
  studyId: string,
  asked: MeasureAsked,
  who: string | null,
): Promise<KeptMeasure> {
  const { db } = app();
  const { photo } = await filedPhoto({ db, studyId }, asked.path);
  const picture = await findPicture(db, studyId, asked.path);
  if (!picture) throw new NotFoundError(`There is no photo ${asked.path} in this study.`);
  const tied = await tiedPhoto(db, studyId, photo.specimen_id, asked.path);
  if (asked.unit === 'mm' && !tied) {
    throw new RequestError(
      422,
      'A region in millimetres needs a photo that is tied to its view by marks.',
    );
  }
  const pxPerMm = tied?.registration.px_per_mm ?? photo.px_per_mm;
  if (pxPerMm === null) {
    throw new RequestError(
      422,
      'The photo’s scale is not known: set marks on it, or say how many pixels a millimetre has.',
    );
  }
  const { x, y, w, h } = asked;
  const task: Omit<Extract<PhotoTask, { do: 'measure' }>, 'path'> = {
    ...{ do: 'measure', measure: asked.measure },
    options: {
      px_per_mm: pxPerMm,
      layer_height_mm: asked.layer_height_mm ?? null,
      speed_mm_s: asked.speed_mm_s ?? null,
    },
    of:
      asked.unit === 'mm' && tied
        ? { unit: 'mm', region: { x, y, w, h }, toPicture: tied.registration.toPicture }
        : { unit: 'px', region: wholePixels(asked) },
  };
  const outcome = await withFolder('measure', async (folder) => {
    const copy = join(folder, 'photo');
    await pipeline(readFile(db, picture.sha256), createWriteStream(copy));
    return (await app().photographers.run({ ...task, path: copy })) as PhotoOutcome;
  });
  if ('message' in outcome) throw new RequestError(422, `The photo ${outcome.message}.`);
  if (!('measured' in outcome)) throw new Error('the thread did not measure');
  const measure_id = uuid();
  await keep(studyId, measure_id, asked, photo.specimen_id, outcome.measured, who);
  return { measure_id, px_per_mm: pxPerMm, ...outcome.measured };
}

function wholePixels({ x, y, w, h }: MeasureAsked) {
  const region = { x: Math.round(x), y: Math.round(y), w: Math.round(w), h: Math.round(h) };
  return region;
}

/** A value as it is kept: a number with what its interval is, or whether it was found. */
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
  studyId: string,
  measure_id: string,
  asked: MeasureAsked,
  specimen_id: string,
  { values }: Measured,
  who: string | null,
): Promise<void> {
  const figure = FIGURE_OF[asked.measure];
  const { found } = values;
  await writeStudy(app().db, studyId, who, async (write) => {
    await insertRow(
      write,
      'photo_measures',
      TABLES.photo_measures.row.parse({
        ...asked,
        ...(asked.unit === 'px' && wholePixels(asked)),
        ...{ measure_id, specimen_id, operator: who, at: new Date().toISOString() },
        ...{ value_key: figure, ...valueOf(values[figure] ?? null) },
        found: typeof found === 'boolean' ? String(found) : null,
      }),
    );
    for (const [key, value] of Object.entries(values)) {
      if (key === figure || key === 'found') continue;
      await insertRow(write, 'photo_values', { measure_id, key, ...valueOf(value) });
    }
  });
}

/** Takes a measure out, with its values. */
export const removeMeasure = (studyId: string, id: string, who: string | null): Promise<void> =>
  writeStudy(app().db, studyId, who, async (write) => {
    const { db } = write;
    const { row_version } = await findRow(db, studyId, 'photo_measures', { measure_id: id });
    for (const value of await listRowsBy(db, studyId, 'photo_values', 'measure_id', id)) {
      const key = { measure_id: id, key: value.key };
      await deleteRow(write, 'photo_values', key, value.row_version);
    }
    await deleteRow(write, 'photo_measures', { measure_id: id }, row_version);
  });

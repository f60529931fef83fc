import { createWriteStream } from 'node:fs';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import {
  findPicture,
  insertRow,
  listRowsBy,
  readFile,
  replaceParts,
  setRectification,
  setPicture,
  specimenOfCode,
  storeSmallContents,
  storeContent,
  writeStudy,
  NotFoundError,
  type Picture,
  type PicturePart,
} from '../../data';
import { TABLES } from '../../core/model/study';
import type { MadePicture, PhotoOutcome, PhotoTask } from '../../files/photos';
import { withFolder } from '../../files/temporary';
import type { App } from '../app';
import type { PhotoJob } from '../jobs';
import { registeredPhoto } from './registration';

/** Contents up to this are stored many at a time. */
const SMALL = 1024 * 1024;

/**
 * Does what a photo wants done: looks into it, files it under the specimen whose sticker it shows, and
 * lays it onto its view where its marks say how.
 */
export async function readPhoto(
  app: App,
  { studyId, path }: PhotoJob,
  isLastTry: boolean,
): Promise<void> {
  const picture = await findPicture(app.db, studyId, path);
  if (!picture || picture.state === 'failed') return;
  try {
    await withFolder('photo', async (folder) => {
      const copy = join(folder, 'photo');
      await pipeline(readFile(app.db, picture.sha256), createWriteStream(copy));
      if (picture.state === 'waiting') await examine(app, studyId, picture, copy);
      await lay(app, studyId, picture, copy);
    });
  } catch (error) {
    if (error instanceof NotFoundError) return;
    if (isLastTry) await fail(app, studyId, path, 'its reading broke down twice');
    throw error;
  }
}

const onThread = (app: App, task: PhotoTask): Promise<PhotoOutcome> => app.photographers.run(task);

const UNKNOWN = { width: null, height: null, taken_at: null, codes: null };

const fail = (app: App, studyId: string, path: string, message: string): Promise<void> =>
  setPicture({ db: app.db, studyId }, path, { ...UNKNOWN, state: 'failed', message });

async function examine(app: App, studyId: string, { path }: Picture, copy: string): Promise<void> {
  const outcome = await onThread(app, { do: 'examine', path: copy });
  if (outcome.isRefused) return fail(app, studyId, path, outcome.message);
  if (!('facts' in outcome)) throw new Error('the thread did not look');
  const { width, height, takenAt, codes, levels } = outcome.facts;
  const parts = await store(app, 'level', levels);
  await writeStudy(app.db, studyId, null, async (write) => {
    await replaceParts(write, path, 'level', parts);
    await setPicture(write, path, {
      state: 'ready',
      message: null,
      width,
      height,
      taken_at: takenAt,
      codes,
    });
    if ((await listRowsBy(write.db, studyId, 'photos', 'path', path)).length > 0) return;
    // What was said of it while it was looked into counts too.
    const told = (await findPicture(write.db, studyId, path))?.told;
    for (const { text } of codes) {
      const specimen = await specimenOfCode(write.db, studyId, text);
      if (specimen === null) continue;
      await insertRow(
        write,
        'photos',
        TABLES.photos.row.parse({ ...told, specimen_id: specimen, path, taken_at: takenAt }),
      );
      break;
    }
  });
}

/** Lays a photo flat by its marks; by none where it has none any more. */
async function lay(app: App, studyId: string, picture: Picture, copy: string): Promise<void> {
  const { db } = app;
  const { path } = picture;
  const [filed] = await listRowsBy(db, studyId, 'photos', 'path', path);
  const tied = filed ? await registeredPhoto(app, db, studyId, filed.specimen_id, path) : null;
  if ((tied?.edition ?? null) === (picture.laid?.edition ?? null)) return;
  if (!tied) {
    return writeStudy(db, studyId, null, async (write) => {
      await setRectification(write, path, null);
      await replaceParts(write, path, 'tile', []);
    });
  }
  const { registration, shown, scale, edition } = tied;
  const outcome = await onThread(app, {
    do: 'lay',
    path: copy,
    toPicture: registration.toPicture,
    box: shown,
    pxPerMm: scale,
  });
  if (outcome.isRefused) return fail(app, studyId, path, outcome.message);
  if (!('laid' in outcome)) throw new Error('the thread did not lay');
  const { tiles, ...sizes } = outcome.laid;
  const parts = await store(app, 'tile', tiles);
  await writeStudy(db, studyId, null, async (write) => {
    await replaceParts(write, path, 'tile', parts);
    await setRectification(write, path, { ...sizes, edition, box: shown });
  });
}

/** Stores pictures that were made, and says what they are. */
async function store(
  app: App,
  kind: PicturePart['kind'],
  made: readonly MadePicture[],
): Promise<PicturePart[]> {
  const small = made.filter(({ bytes }) => bytes.length <= SMALL);
  const hashes = await storeSmallContents(
    app.db,
    small.map(({ bytes }) => Buffer.from(bytes)),
  );
  const parts: PicturePart[] = [];
  for (const one of made) {
    const { bytes, ...facts } = one;
    const at = small.indexOf(one);
    const sha256 =
      at === -1 ? await storeContent(app.db, [Buffer.from(bytes)]) : (hashes[at] ?? '');
    parts.push({ kind, ...facts, sha256 });
  }
  return parts;
}

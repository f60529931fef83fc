import * as z from 'zod';
import { TABLES, type Row } from '../../core/model/study';
import {
  deleteRow,
  deleteWhole,
  findPicture,
  findRow,
  insertRow,
  listRowsBy,
  movePhoto,
  panelsWith,
  NotFoundError,
  setTold,
  updateRow,
  writeStudy,
  type RowKey,
  type Stored,
  type Write,
} from '../../data';
import { checkNotOthers } from '../access/own';
import { afterwards, type App } from '../app';
import { RequestError } from '../http/problem';
import { queuePhoto } from '../jobs';
import { checkRow } from '../rows';

const photo = TABLES.photos.row.shape;

/** A column that may be sent; one that is not sent is not there, and has no default. */
const ifSent = <Schema extends z.ZodType>(schema: Schema) =>
  z
    .custom((value) => value !== undefined)
    .pipe(schema)
    .optional();

/** Where photos are filed: all of these under one specimen, or what is told of each stays as it is. */
export const filingSchema = z.strictObject({
  paths: z.array(photo.path).min(1).max(500),
  specimen_id: ifSent(photo.specimen_id),
  view: ifSent(photo.view),
  light: ifSent(photo.light),
  session: ifSent(photo.session),
  px_per_mm: ifSent(photo.px_per_mm),
});

export type Filing = z.infer<typeof filingSchema>;

/** What may be said of a photo while it is announced: it is filed so with its last bytes. */
export const toldSchema = filingSchema.omit({ paths: true });

/**
 * Files photos under a specimen, or says more of them: view, light, session, scale. What is not sent
 * stays as it is; what is said before the specimen is known waits with the photo. One action for all.
 *
 * @returns the rows of those that are filed now
 */
export async function filePhotos(
  app: App,
  studyId: string,
  { paths, ...told }: Filing,
  who: string | null,
): Promise<Stored<'photos'>[]> {
  const { db } = app;
  const rows = await writeStudy(db, studyId, who, async (write) => {
    const out: Stored<'photos'>[] = [];
    for (const path of new Set(paths)) {
      const row = await fileOne(write, path, told);
      if (row) out.push(row);
    }
    return out;
  });
  // Another view has another rectangle.
  for (const { path } of rows) afterwards(app, () => queuePhoto(app, studyId, path));
  return rows;
}

/**
 * Files a photo of the study, or says more of it, within a write.
 *
 * @returns its row; null where its specimen is not known yet
 * @throws NotFoundError where there is no such photo or specimen
 */
export async function fileOne(
  write: Write,
  path: string,
  told: Omit<Filing, 'paths'>,
): Promise<Stored<'photos'> | null> {
  const { db, studyId } = write;
  const picture = await findPicture(db, studyId, path);
  if (!picture) throw new NotFoundError(`There is no photo ${path} in this study.`);
  const [known] = await listRowsBy(db, studyId, 'photos', 'path', path);
  if (known) await checkNotOthers(write, 'photos', { specimen_id: known.specimen_id, path });
  const specimen = told.specimen_id ?? known?.specimen_id;
  const said = Object.fromEntries(
    Object.entries(told).filter(([, value]) => value !== undefined),
  ) as Partial<Row<'photos'>>;
  if (specimen === undefined) {
    await setTold(write, path, { ...picture.told, ...said });
    return null;
  }
  if (known && specimen === known.specimen_id) {
    const key = { specimen_id: specimen, path };
    return updateRow(write, 'photos', key, said, known.row_version);
  }
  if (known) return moveTo(write, known, specimen, said);
  const row = TABLES.photos.row.parse({
    taken_at: picture.taken_at,
    ...picture.told,
    ...said,
    specimen_id: specimen,
    path,
  });
  await checkRow(write, 'photos', row);
  return insertRow(write, 'photos', row);
}

/** Files a photo under another specimen: what was marked and measured on it goes along, it shows the same place. */
async function moveTo(
  write: Write,
  known: Stored<'photos'>,
  specimen: string,
  said: Partial<Row<'photos'>>,
): Promise<Stored<'photos'>> {
  const { db, studyId } = write;
  const { path, specimen_id } = known;
  await checkNotShown(write, path);
  const key = { specimen_id: specimen, path };
  await findRow(db, studyId, 'specimens', { specimen_id: specimen });
  const isMeasured = (await rowsOfPhoto(write, 'photo_measures', known)).length > 0;
  if (
    isMeasured &&
    (await artefactOf(write, specimen_id)) !== (await artefactOf(write, specimen))
  ) {
    throw new RequestError(
      409,
      'Something was measured on this photo, and that specimen is another part: delete its ' +
        'measures before you file it there.',
    );
  }
  await movePhoto(write, path, specimen_id, specimen);
  const moved = await findRow(db, studyId, 'photos', key);
  const { specimen_id: _, ...more } = said;
  return updateRow(write, 'photos', key, more, moved.row_version);
}

async function artefactOf({ db, studyId }: Write, specimen_id: string): Promise<string> {
  const { print_id } = await findRow(db, studyId, 'specimens', { specimen_id });
  return (await findRow(db, studyId, 'prints', { print_id })).artefact_id;
}

/** Rows of a table that stand under a photo of a specimen. */
const rowsOfPhoto = async <Name extends 'photo_marks' | 'photo_measures'>(
  { db, studyId }: Write,
  table: Name,
  { specimen_id, path }: Pick<Stored<'photos'>, 'specimen_id' | 'path'>,
): Promise<Stored<Name>[]> =>
  (await listRowsBy(db, studyId, table, 'specimen_id', specimen_id)).filter(
    (row) => row.path === path,
  );

/** A photo that judges see stays where it is. @throws RequestError 409 */
async function checkNotShown(write: Write, path: string): Promise<void> {
  const [shown] = await panelsWith(write, { path });
  if (!shown) return;
  throw new RequestError(
    409,
    `Judges see this photo in the panel “${shown.aspect}”: remove the specimen from it first, with a reason.`,
  );
}

/** Takes a photo out from under its specimen: it waits to be filed again. */
async function takeOut(write: Write, known: Stored<'photos'>): Promise<void> {
  const { specimen_id, path, row_version } = known;
  await checkNotShown(write, path);
  if ((await rowsOfPhoto(write, 'photo_measures', known)).length > 0) {
    throw new RequestError(
      409,
      'Something was measured on this photo: file it under another specimen, or delete it with its measures.',
    );
  }
  for (const mark of await rowsOfPhoto(write, 'photo_marks', known)) {
    const key = { specimen_id, path, mark: mark.mark };
    await deleteRow(write, 'photo_marks', key, mark.row_version);
  }
  await deleteRow(write, 'photos', { specimen_id, path }, row_version);
}

/** Takes a photo away from a specimen, or out of the study where it is filed under none. */
export const removePhoto = (
  app: App,
  studyId: string,
  path: string,
  who: string | null,
): Promise<void> =>
  writeStudy(app.db, studyId, who, async (write) => {
    if (!(await findPicture(write.db, studyId, path))) {
      throw new NotFoundError(`There is no photo ${path} in this study.`);
    }
    const [known] = await listRowsBy(write.db, studyId, 'photos', 'path', path);
    if (known) await takeOut(write, known);
    else
      await deleteWhole(write, {
        table: 'photos',
        key: { path } as RowKey,
        title: `Photo ${path}`,
      });
  });

/** The filed photo at a path. @throws NotFoundError */
export async function filedPhoto(
  write: Pick<Write, 'db' | 'studyId'>,
  path: string,
): Promise<{ photo: Stored<'photos'>; artefactId: string; print: Stored<'prints'> }> {
  const [found] = await listRowsBy(write.db, write.studyId, 'photos', 'path', path);
  if (!found) throw new NotFoundError(`The photo ${path} is filed under no specimen.`);
  const { specimen_id } = found;
  const specimen = await findRow(write.db, write.studyId, 'specimens', { specimen_id });
  const print = await findRow(write.db, write.studyId, 'prints', { print_id: specimen.print_id });
  return { photo: found, artefactId: print.artefact_id, print };
}

import * as z from 'zod';
import { TABLES, type Row } from '../../core/study';
import {
  deletePicture,
  deleteRow,
  findPicture,
  findRow,
  insertRow,
  listRowsBy,
  panelsWith,
  NotFoundError,
  setTold,
  updateRow,
  writeStudy,
  type Stored,
  type Write,
} from '../../data';
import { checkNotOthers } from '../access/own';
import { afterwards, app } from '../app';
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

/**
 * Files photos under a specimen, or says more of them: view, light, session, scale. What is not sent
 * stays as it is; what is said before the specimen is known waits with the photo. One action for all.
 *
 * @returns the rows of those that are filed now
 */
export async function filePhotos(
  studyId: string,
  { paths, ...told }: Filing,
  who: string | null,
): Promise<Stored<'photos'>[]> {
  const { db } = app();
  const rows = await writeStudy(db, studyId, who, async (write) => {
    const out: Stored<'photos'>[] = [];
    for (const path of new Set(paths)) {
      const row = await fileOne(write, path, told);
      if (row) out.push(row);
    }
    return out;
  });
  // Another view has another rectangle.
  for (const { path } of rows) afterwards(() => queuePhoto(app(), studyId, path));
  return rows;
}

async function fileOne(
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
  const { row_version: _, ...before } = known ?? { row_version: 0 };
  const row = TABLES.photos.row.parse({
    ...{ taken_at: picture.taken_at, ...(known ? before : picture.told), ...said },
    ...{ specimen_id: specimen, path },
  });
  await checkRow(write, 'photos', row);
  const marks = known ? await takeOut(write, known) : [];
  const added = await insertRow(write, 'photos', row);
  // The photo shows the same view of another specimen: its marks stay where they are.
  for (const { row_version: __, ...mark } of marks) {
    await insertRow(write, 'photo_marks', { ...mark, specimen_id: specimen });
  }
  return added;
}

/** Takes a photo out from under its specimen. @returns the marks that it had */
async function takeOut(write: Write, known: Stored<'photos'>): Promise<Stored<'photo_marks'>[]> {
  const { db, studyId } = write;
  const { specimen_id, path, row_version } = known;
  const [shown] = await panelsWith(write, { path });
  if (shown) {
    throw new RequestError(
      409,
      `Judges see this photo in the panel “${shown.aspect}”: take the specimen out of it first, with a reason.`,
    );
  }
  const of = async <Name extends 'photo_marks' | 'photo_measures'>(table: Name) =>
    (await listRowsBy(db, studyId, table, 'specimen_id', specimen_id)).filter(
      (row) => row.path === path,
    );
  const measures = await of('photo_measures');
  if (measures.length > 0) {
    throw new RequestError(
      409,
      'Something was measured on this photo: take its measures out before it is filed elsewhere.',
    );
  }
  const marks = await of('photo_marks');
  for (const mark of marks) {
    const key = { specimen_id, path, mark: mark.mark };
    await deleteRow(write, 'photo_marks', key, mark.row_version);
  }
  await deleteRow(write, 'photos', { specimen_id, path }, row_version);
  return marks;
}

/** Takes a photo away from a specimen, or out of the study where it is filed under none. */
export const removePhoto = (studyId: string, path: string, who: string | null): Promise<void> =>
  writeStudy(app().db, studyId, who, async (write) => {
    if (!(await findPicture(write.db, studyId, path))) {
      throw new NotFoundError(`There is no photo ${path} in this study.`);
    }
    const [known] = await listRowsBy(write.db, studyId, 'photos', 'path', path);
    if (known) await takeOut(write, known);
    else await deletePicture(write, path);
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

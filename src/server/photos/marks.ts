import * as z from 'zod';
import { RegistrationError, type Mark } from '../../core/measures/image';
import { TABLES } from '../../core/model/study';
import {
  deleteRow,
  insertRow,
  listRowsBy,
  updateRow,
  writeStudy,
  type Stored,
  type Write,
} from '../../data';
import { afterwards, type App } from '../app';
import { RequestError } from '../http/problem';
import { queuePhoto } from '../jobs';
import { filedPhoto } from './filing';
import { registerPhoto } from './registration';
import { boxOfMarks, viewBoxOf } from './views';

const mark = TABLES.photo_marks.row.shape;

export const marksSchema = z.strictObject({
  path: mark.path,
  marks: z
    .array(z.strictObject({ u_px: mark.u_px, v_px: mark.v_px, x_mm: mark.x_mm, y_mm: mark.y_mm }))
    .max(24),
});

/** How a photo lies on its view, as it is told. */
export interface ToldTie {
  kind: string;
  px_per_mm: number;
  misfit_mm: number | null;
  tilt_deg: number;
}

/**
 * Ties a photo to its view by these marks in place of those that it had; none: it is tied no more.
 *
 * @throws RequestError where no mapping follows from them; nothing is kept then
 */
export async function setMarks(
  app: App,
  studyId: string,
  { path, marks }: z.infer<typeof marksSchema>,
  who: string | null,
): Promise<ToldTie | null> {
  const told = await writeStudy(app.db, studyId, who, (write) => putMarks(app, write, path, marks));
  afterwards(app, () => queuePhoto(app, studyId, path));
  return told;
}

async function putMarks(
  app: App,
  write: Write,
  path: string,
  marks: readonly Mark[],
): Promise<ToldTie | null> {
  const { db, studyId } = write;
  const { photo, artefactId } = await filedPhoto(write, path);
  if (photo.view === null) {
    throw new RequestError(422, 'Choose the view first: marks belong to a view.');
  }
  const told =
    marks.length === 0 ? null : await registrationOf(app, write, artefactId, photo, marks);
  const { specimen_id } = photo;
  const before = (await listRowsBy(db, studyId, 'photo_marks', 'specimen_id', specimen_id)).filter(
    (row) => row.path === path,
  );
  for (const row of before) {
    await deleteRow(write, 'photo_marks', { specimen_id, path, mark: row.mark }, row.row_version);
  }
  for (const [at, one] of marks.entries()) {
    await insertRow(write, 'photo_marks', { specimen_id, path, mark: at + 1, ...one });
  }
  // A scale that was typed before gives way to the one that follows from the marks.
  if (told && photo.px_per_mm !== null) {
    const key = { specimen_id, path };
    await updateRow(write, 'photos', key, { px_per_mm: null }, photo.row_version);
  }
  return told;
}

async function registrationOf(
  app: App,
  { db, studyId }: Write,
  artefactId: string,
  { view }: Stored<'photos'>,
  marks: readonly Mark[],
): Promise<ToldTie> {
  const box = (await viewBoxOf(app, db, studyId, artefactId, view)) ?? boxOfMarks(marks);
  try {
    const { kind, px_per_mm, misfit_mm, tilt_deg } = registerPhoto(marks, box).registration;
    return { kind, px_per_mm, misfit_mm, tilt_deg };
  } catch (error) {
    if (!(error instanceof RegistrationError)) throw error;
    throw new RequestError(422, `The photo is not tied: ${error.message}.`);
  }
}

/**
 * Carries a photo's marks over to the other photos of its session that show the same specimen's view,
 * where camera and part did not move between them.
 *
 * @returns the photos that are tied now
 */
export async function carryMarks(
  app: App,
  studyId: string,
  path: string,
  who: string | null,
): Promise<string[]> {
  const tied = await writeStudy(app.db, studyId, who, async (write) => {
    const { db } = write;
    const { photo } = await filedPhoto(write, path);
    if (photo.session === null) {
      throw new RequestError(422, 'First say in which session the photo was taken.');
    }
    const own = await listRowsBy(db, studyId, 'photo_marks', 'specimen_id', photo.specimen_id);
    const marks = own
      .filter((row) => row.path === path)
      .map(({ u_px, v_px, x_mm, y_mm }) => ({ u_px, v_px, x_mm, y_mm }));
    if (marks.length === 0) throw new RequestError(422, 'This photo has no marks to carry over.');
    const others = (
      await listRowsBy(db, studyId, 'photos', 'specimen_id', photo.specimen_id)
    ).filter(
      (other) =>
        other.path !== path &&
        other.session === photo.session &&
        other.view === photo.view &&
        !own.some((mark) => mark.path === other.path),
    );
    for (const other of others) await putMarks(app, write, other.path, marks);
    return others.map((other) => other.path);
  });
  for (const one of tied) afterwards(app, () => queuePhoto(app, studyId, one));
  return tied;
}

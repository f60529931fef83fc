import type { App } from '../app';
import { createHash } from 'node:crypto';
import {
  register,
  RegistrationError,
  type Mark,
  type Registration,
  type ViewBox,
} from '../../core/measures/image';
import { listRowsBy, rowOrNull, type Database } from '../../data';
import { boxOfMarks, viewBoxOf, withMargin } from './views';

/** A filed photo of a view, tied to it. */
export interface RegisteredPhoto {
  registration: Registration;
  /** The rectangle that its artefact fills on the view. */
  box: ViewBox;
  /** What is laid flat: that rectangle and some room around it. */
  shown: ViewBox;
  /** Pixels a millimetre at which it is laid flat. */
  scale: number;
  /** What it is laid by. */
  edition: string;
}

/** More pixels than this are not laid flat: the scale is smaller then. */
const MOST_LAID = 24e6;

/** How a filed photo lies on its view; null where it has no marks. */
export async function registeredPhoto(
  app: App,
  db: Database,
  studyId: string,
  specimenId: string,
  path: string,
): Promise<RegisteredPhoto | null> {
  // One after another: within a write there is one connection.
  const photo = await rowOrNull(db, studyId, 'photos', { specimen_id: specimenId, path });
  const all = await listRowsBy(db, studyId, 'photo_marks', 'specimen_id', specimenId);
  const specimen = await rowOrNull(db, studyId, 'specimens', { specimen_id: specimenId });
  const marks = all.filter((mark) => mark.path === path);
  if (!photo || !specimen || marks.length < 2) return null;
  const print = await rowOrNull(db, studyId, 'prints', { print_id: specimen.print_id });
  if (!print) return null;
  const box =
    (await viewBoxOf(app, db, studyId, print.artefact_id, photo.view)) ?? boxOfMarks(marks);
  try {
    return registerPhoto(marks, box);
  } catch (error) {
    // Marks that came with a package may say nothing; nothing is laid by them.
    if (error instanceof RegistrationError) return null;
    throw error;
  }
}

/** @throws RegistrationError */
export function registerPhoto(marks: readonly Mark[], box: ViewBox): RegisteredPhoto {
  const registration = register(marks, box);
  const shown = withMargin(box);
  const most = Math.sqrt(MOST_LAID / (shown.w * shown.h));
  const scale = Math.min(registration.px_per_mm, most);
  const edition = createHash('sha256')
    .update(JSON.stringify([registration.toPicture, shown, scale]))
    .digest('hex')
    .slice(0, 12);
  return { registration, box, shown, scale, edition };
}

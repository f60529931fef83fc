import { createWriteStream } from 'node:fs';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { project, type ViewBox } from '../../core/measures/image';
import { findPicture, listSpecimenFacts, readFile, storeContent } from '../../data';
import { LEAST_PADDING, type BlindFrame, type PhotoTask } from '../../files/photos';
import { withFolder } from '../../files/temporary';
import type { App } from '../app';
import { RequestError } from '../http/problem';
import { registeredPhoto } from '../photos/registration';
import { contenderName, type Held } from './held';

/** Pixels of the longer side of what a judge sees: two of them are sharp side by side on a phone that grows them. */
const LONGEST_PX = 1400;
/** Sizes of files are the same for all pictures of a panel, in whole steps of this. */
const STEP_BYTES = 16 * 1024;

/** What was made of a panel's photos. */
export interface BlindPictures {
  /** By specimen, the content of its picture. */
  contents: ReadonlyMap<string, string>;
  /** How many bytes every picture is given. */
  bytes: number;
}

/** The place of a view that a panel of photos shows. */
export const placeOf = ({ setup: { x_mm, y_mm, w_mm, h_mm } }: Held): ViewBox | null =>
  x_mm === null || y_mm === null || w_mm === null || h_mm === null
    ? null
    : { x: x_mm, y: y_mm, w: w_mm, h: h_mm };

/**
 * Cuts the photos of a panel to its place: as large, as sharp, and in files as long as one another.
 *
 * @throws RequestError naming the specimen whose photo cannot be shown
 */
export async function makePictures(app: App, studyId: string, held: Held): Promise<BlindPictures> {
  const box = placeOf(held);
  if (!box) throw new RequestError(422, 'Say which place of the view is shown.');
  const { db, photographers } = app;
  const facts = new Map(
    (await listSpecimenFacts(db, studyId)).map((one) => [one.specimen_id, one]),
  );
  return withFolder('panel', async (folder) => {
    const frames: BlindFrame[] = [];
    for (const [at, { specimen_id, path }] of held.items.entries()) {
      const name = contenderName(facts.get(specimen_id)) ?? specimen_id;
      const picture = path === null ? null : await findPicture(db, studyId, path);
      const tied = picture && (await registeredPhoto(app, db, studyId, specimen_id, picture.path));
      if (!picture || !tied || picture.width === null || picture.height === null) {
        throw new RequestError(
          422,
          `The photo of ${name} is not tied to its view yet: set its marks first.`,
        );
      }
      const { toPicture, px_per_mm } = tied.registration;
      if (!showsAll(toPicture, box, picture.width, picture.height)) {
        throw new RequestError(
          422,
          `The photo of ${name} does not show all of the place: make it smaller, or leave ${name} out.`,
        );
      }
      const copy = join(folder, String(at));
      await pipeline(readFile(db, picture.sha256), createWriteStream(copy));
      frames.push({ path: copy, toPicture, pxPerMm: px_per_mm });
    }
    // None is sharper than another: the coarsest photo says how fine all are.
    const pxPerMm = Math.min(
      LONGEST_PX / Math.max(box.w, box.h),
      ...frames.map((frame) => frame.pxPerMm),
    );
    const levels = held.setup.levels ?? 'as-taken';
    const task: PhotoTask = { do: 'blind', frames, box, pxPerMm, levels };
    const outcome = await photographers.run(task);
    if (outcome.isRefused) throw new RequestError(422, `A photo of the panel ${outcome.message}.`);
    if (!('blind' in outcome)) throw new Error('the thread did not cut');
    const contents = new Map<string, string>();
    for (const [at, bytes] of outcome.blind.entries()) {
      const sha256 = await storeContent(db, Readable.from([bytes]));
      contents.set(held.items[at]?.specimen_id ?? '', sha256);
    }
    const longest = Math.max(...outcome.blind.map((bytes) => bytes.length)) + LEAST_PADDING;
    return { contents, bytes: Math.ceil(longest / STEP_BYTES) * STEP_BYTES };
  });
}

/** Whether a photo shows all of a place. */
function showsAll(
  toPicture: BlindFrame['toPicture'],
  { x, y, w, h }: ViewBox,
  width: number,
  height: number,
): boolean {
  const corners = [
    { x, y },
    { x: x + w, y },
    { x, y: y + h },
    { x: x + w, y: y + h },
  ];
  return corners
    .map((corner) => project(toPicture, corner))
    .every((at) => at.x >= 0 && at.y >= 0 && at.x <= width && at.y <= height);
}

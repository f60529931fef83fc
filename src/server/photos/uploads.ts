import {
  findPicture,
  insertPicture,
  listRowsBy,
  NotFoundError,
  pathOfPicture,
  type Write,
} from '../../data';
import { isHeic, kindOfPicture } from '../../files/photos/picture-kinds';
import { afterwards } from '../app';
import { RequestError } from '../http/problem';
import { queuePhoto } from '../jobs';
import type { UploadKind } from '../uploads';
import { fileOne, toldSchema } from './filing';

/** What is said of a file that is no photo, by its first bytes. */
function checkPhoto(head: Uint8Array): void {
  if (kindOfPicture(head)) return;
  throw new RequestError(
    415,
    isHeic(head)
      ? 'This is a HEIC picture: set the phone’s camera to the most compatible format, or send it as JPEG.'
      : 'A photo is a JPEG, PNG or WebP picture.',
  );
}

const hasSpecimen = async ({ db, studyId }: Write, specimen_id: string): Promise<boolean> =>
  (await listRowsBy(db, studyId, 'specimens', 'specimen_id', specimen_id)).length > 0;

/** Photos as they are uploaded: each is looked into as soon as it has arrived. */
export const PHOTO_UPLOADS: UploadKind = {
  folder: 'photos',
  largest: 40 * 1024 * 1024,
  // What it is, its first bytes say, not its name.
  checkName: () => undefined,
  async checkContent(content) {
    for await (const chunk of content) return checkPhoto(chunk);
    throw new RequestError(415, 'The photo is empty.');
  },
  // The same picture of an incident is another file: it stays when this one is taken out.
  known: (study, sha256) => pathOfPicture(study, sha256),
  async checkTold(write, told) {
    const { specimen_id } = toldSchema.parse(told);
    if (specimen_id === undefined || (await hasSpecimen(write, specimen_id))) return;
    throw new NotFoundError(
      `There is no specimen ${specimen_id} in this study: send the photo without it, and file it later.`,
    );
  },
  async enter(write, path, name, told) {
    await insertPicture(write, path, name);
    if (told === null) return;
    const { specimen_id, ...said } = toldSchema.parse(told);
    // A specimen that was deleted while the photo was sent: the photo waits to be filed.
    const isStill = specimen_id !== undefined && (await hasSpecimen(write, specimen_id));
    await fileOne(write, path, isStill ? { specimen_id, ...said } : said);
  },
  follow: (app, studyId, path) =>
    afterwards(app, async () => {
      const picture = await findPicture(app.db, studyId, path);
      if (picture?.state === 'waiting') await queuePhoto(app, studyId, path);
    }),
};

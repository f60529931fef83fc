import { findPicture, insertPicture, pathOfPicture } from '../../data';
import { isHeic, kindOfPicture } from '../../files/photos/picture-kinds';
import { afterwards } from '../app';
import { RequestError } from '../http/problem';
import { queuePhoto } from '../jobs';
import type { UploadKind } from '../uploads';

/** What is said of a file that is no photo, by its first bytes. */
export function checkPhoto(head: Uint8Array): void {
  if (kindOfPicture(head)) return;
  throw new RequestError(
    415,
    isHeic(head)
      ? 'This is a HEIC picture: set the phone’s camera to the most compatible format, or send it as JPEG.'
      : 'A photo is a JPEG, PNG or WebP picture.',
  );
}

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
  enter: (write, path, name) => insertPicture(write, path, name),
  follow: (app, studyId, path) =>
    afterwards(app, async () => {
      const picture = await findPicture(app.db, studyId, path);
      if (picture?.state === 'waiting') await queuePhoto(app, studyId, path);
    }),
};

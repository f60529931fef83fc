import { findSlicedFile, insertSlicedFile, pathOfContent } from '../../data';
import { afterwards } from '../app';
import { RequestError } from '../http/problem';
import { queueReading } from '../jobs';
import type { UploadKind } from '../uploads';

const ENDINGS = /\.(?:gcode|gco|g|nc|3mf|gz)$/i;

/** Sliced files as they are uploaded: each is read as soon as it has arrived. */
export const SLICED_UPLOADS: UploadKind = {
  folder: 'sliced',
  largest: 500 * 1024 * 1024,
  checkName(name) {
    if (ENDINGS.test(name)) return;
    throw new RequestError(
      422,
      `${name} is no sliced file: its name must end in .gcode, .gco, .g, .nc, .gz or .3mf.`,
    );
  },
  known: ({ db, studyId }, sha256) => pathOfContent(db, studyId, sha256),
  async enter(write, path) {
    const purpose = { contender_id: null, artefact_id: null, is_confirmed: false };
    await insertSlicedFile(write, path, purpose);
    write.touch('sliced_files');
  },
  follow: (app, studyId, path) =>
    afterwards(app, async () => {
      const { state } = await findSlicedFile(app.db, studyId, path);
      if (state === 'waiting') await queueReading(app, studyId, path);
    }),
};

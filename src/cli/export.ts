import { codeOf } from '../core/model/faults';
import { createWriteStream } from 'node:fs';
import { rename, rm } from 'node:fs/promises';
import { pipeline } from 'node:stream/promises';
import { NotFoundError } from '../data';
import { exportStudy } from '../server/study/export';
import { InputError } from './input-error';
import { withDatabase } from './with-database';

/** `vergleich export`: writes the zip beside its place first, so that no half file is left. */
export const runExport = (studyId: string, to: string): Promise<void> =>
  withDatabase(async (db) => {
    const draft = `${to}.part`;
    try {
      const { zip, lacking } = await exportStudy(db, studyId);
      if (lacking.length > 0) {
        process.stderr.write(
          `warning: the study has no ${lacking.join(', no ')} yet: other programs can read its ` +
            'package, but it cannot be imported until it has\n',
        );
      }
      await pipeline(zip, createWriteStream(draft));
      await rename(draft, to);
    } catch (error) {
      await rm(draft, { force: true });
      if (error instanceof NotFoundError) throw new InputError(error.message);
      const code = codeOf(error);
      if (code === 'ENOENT' || code === 'EACCES' || code === 'EISDIR') {
        throw new InputError(`${to} cannot be written (${code})`);
      }
      throw error;
    }
  }, 'tables');

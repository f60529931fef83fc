import { formatFault, warningLines } from '../core/model/package';
import { readPackageOnDisk } from '../files/read-package';
import { importStudy } from '../server/study/import';
import { InputError } from './input-error';
import { withDatabase } from './with-database';

/** `vergleich import`: prints the id of the new study. */
export const runImport = (path: string, { all = false }: { all?: boolean }): Promise<void> =>
  withDatabase(async (db) => {
    const outcome = await importStudy(db, path, readPackageOnDisk);
    for (const line of warningLines(outcome, all)) process.stderr.write(`${line}\n`);
    if (outcome.studyId === null) {
      const more = outcome.faultCount - outcome.faults.length;
      const lines = outcome.faults.map(formatFault);
      if (more > 0) lines.push(`and ${more} more`);
      throw new InputError(lines.join('\n'));
    }
    process.stdout.write(`${outcome.studyId}\n`);
  });

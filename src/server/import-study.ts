import { v7 as uuid } from 'uuid';
import { readPackage, type FaultReport } from '../core/package';
import { addSlicedFile, storeFile, storeStudy, type Database } from '../data';
import { openPackage } from './packages';
import { packageSettings } from './toolpaths';

export type ImportOutcome = (FaultReport & { studyId: string }) | (FaultReport & { studyId: null });

/**
 * Puts a study package, a folder or a zip, into the database in one transaction: where there is
 * any fault, nothing is kept.
 *
 * @throws PackageError where there is no package that can be opened
 */
export async function importStudy(db: Database, path: string): Promise<ImportOutcome> {
  const files = await openPackage(path);
  try {
    const { content, ...report } = await readPackage(files);
    if (!content) return { ...report, studyId: null };
    const studyId = uuid();
    // A file that cannot be read is told when its turn comes; the study is whole without it.
    const stated = await packageSettings(content.study, files, () => undefined);
    await db.sequelize.transaction(async (transaction) => {
      await storeStudy(db, studyId, content.study, content.descriptorExtras, transaction);
      for (const file of content.extraFiles) {
        await storeFile(db, studyId, file, await files.stream(file), transaction);
      }
      const { prints, planned } = content.study.tables;
      for (const row of [...planned, ...prints]) {
        if (row.toolpath === null) continue;
        const purpose = { ...row, is_confirmed: true };
        const settings = stated.get(row.toolpath) ?? null;
        await addSlicedFile(db, studyId, row.toolpath, { ...purpose, settings }, null, transaction);
      }
    });
    return { ...report, studyId };
  } finally {
    await files.close();
  }
}

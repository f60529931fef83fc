import { v7 as uuid } from 'uuid';
import { readPackage, type FaultReport } from '../core/package';
import { addSlicedFile, storeFile, storeStudy, type Database } from '../data';
import { openPackage } from './packages';

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
    await db.sequelize.transaction(async (transaction) => {
      await storeStudy(db, studyId, content.study, content.descriptorExtras, transaction);
      for (const file of content.extraFiles) {
        await storeFile(db, studyId, file, await files.stream(file), transaction);
      }
      const { prints, planned } = content.study.tables;
      for (const row of [...planned, ...prints]) {
        if (row.toolpath === null) continue;
        const purpose = { ...row, is_confirmed: true };
        await addSlicedFile(db, studyId, row.toolpath, purpose, null, transaction);
      }
    });
    return { ...report, studyId };
  } finally {
    await files.close();
  }
}

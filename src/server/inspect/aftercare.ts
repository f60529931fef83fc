import type * as z from 'zod';
import { TABLES } from '../../core/model/study';
import { findRow, insertRow, listRowsBy, updateRow, writeStudy, type Stored } from '../../data';
import type { App } from '../app';
import { checkRow } from '../rows';

/** What hands did to a specimen, all in all for its kind and those hands. */
export const aftercareSchema = TABLES.aftercare.row.strict();

/**
 * Keeps how long hands worked on a specimen, in place of what was kept for the same kind and hands.
 * Sent again, it changes nothing.
 */
export const keepAftercare = (
  app: App,
  studyId: string,
  content: z.infer<typeof aftercareSchema>,
  who: string | null,
): Promise<Stored<'aftercare'>> =>
  writeStudy(app.db, studyId, who, async (write) => {
    const { specimen_id, kind, operator } = content;
    await findRow(write.db, studyId, 'specimens', { specimen_id });
    const before = (
      await listRowsBy(write.db, studyId, 'aftercare', 'specimen_id', specimen_id)
    ).find((row) => row.kind === kind && row.operator === operator);
    if (before) {
      const key = { specimen_id, kind, operator };
      return updateRow(write, 'aftercare', key, content, before.row_version);
    }
    await checkRow(write, 'aftercare', content);
    return insertRow(write, 'aftercare', content);
  });

import * as z from 'zod';
import type { Settings } from '../../core/model/study';
import { query, type Database } from '../database';

const slicedSettingsRow = z.strictObject({ path: z.string(), settings: z.custom<Settings>() });

/** The settings that the read files of a study state, by path. */
export async function slicedSettings(
  db: Database,
  studyId: string,
): Promise<Map<string, Settings>> {
  const rows = await query(
    db,
    slicedSettingsRow,
    'select path, settings from sliced_files where study_id = $1 and settings is not null',
    [studyId],
  );
  return new Map(rows.map((row) => [row.path, row.settings]));
}

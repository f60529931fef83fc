import type { Settings } from '../../core/model/study';
import { select, type Database } from '../database';

/** The settings that the read files of a study state, by path. */
export async function slicedSettings(
  db: Database,
  studyId: string,
): Promise<Map<string, Settings>> {
  const rows = await select<{ path: string; settings: Settings }>(
    db,
    'select path, settings from sliced_files where study_id = $1 and settings is not null',
    [studyId],
  );
  return new Map(rows.map((row) => [row.path, row.settings]));
}

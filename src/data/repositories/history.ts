import type { HistoryEntry } from '../../core/model/package';
import { select, type Database } from '../database';
import { PERSON } from './changes';

/** The whole history of a study, the oldest change first. */
export const listHistory = (db: Database, studyId: string): Promise<HistoryEntry[]> =>
  select<HistoryEntry>(
    db,
    `select table_name, row_key, before, after, who, ${PERSON} as person,
       to_char(at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.US"Z"') as at
     from changes where study_id = $1 order by change_id`,
    [studyId],
  );

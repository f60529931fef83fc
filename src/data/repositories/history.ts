import * as z from 'zod';
import type { HistoryEntry } from '../../core/model/package';
import { query, type Database } from '../database';
import { PERSON } from './changes';

const historyEntryRow = z.strictObject({
  table_name: z.string(),
  row_key: z.record(z.string(), z.unknown()),
  before: z.record(z.string(), z.unknown()).nullable(),
  after: z.record(z.string(), z.unknown()).nullable(),
  who: z.string().nullable(),
  person: z.string().nullable(),
  at: z.string(),
});

/** The whole history of a study, the oldest change first. */
export const listHistory = (db: Database, studyId: string): Promise<HistoryEntry[]> =>
  query(
    db,
    historyEntryRow,
    `select table_name, row_key, before, after, who, ${PERSON} as person,
       to_char(at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.US"Z"') as at
     from changes where study_id = $1 order by change_id`,
    [studyId],
  );

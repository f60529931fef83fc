import type { Transaction } from 'sequelize';
import { execute, select, type Database } from '../database';

/** One change of a record: how it stood before and after; null for not there. */
export interface Change {
  studyId: string;
  table: string;
  key: Record<string, unknown>;
  before: unknown;
  after: unknown;
  who: string | null;
}

/** Keeps a change in the study's history, within the change's own transaction. */
export function logChange(db: Database, change: Change, transaction: Transaction): Promise<void> {
  const json = (value: unknown) => (value === null ? null : JSON.stringify(value));
  return execute(
    db,
    `insert into changes (study_id, table_name, row_key, before, after, who)
     values ($1, $2, $3, $4, $5, $6)`,
    [
      change.studyId,
      change.table,
      JSON.stringify(change.key),
      json(change.before),
      json(change.after),
      change.who,
    ],
    transaction,
  );
}

/** The changes of a row, the latest first. */
export const listChanges = (
  db: Database,
  studyId: string,
  table: string,
  key: Record<string, string>,
): Promise<(Pick<Change, 'before' | 'after' | 'who'> & { at: string })[]> =>
  select(
    db,
    `select at, who, before, after from changes
     where study_id = $1 and table_name = $2 and row_key = $3::jsonb order by change_id desc limit 200`,
    [studyId, table, JSON.stringify(key)],
  );

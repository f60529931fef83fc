import type { Transaction } from 'sequelize';
import { execute, type Database } from '../database';

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

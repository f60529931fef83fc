import * as z from 'zod';
import type { TableName } from '../../core/model/study';
import { asJson, execute, query, type Database, moments } from '../database';
import type { Write } from '../write';

/** One change of a record: how it stood before and after; null for not there. */
export interface Change {
  table: TableName | 'studies';
  key: object;
  before: object | null;
  after: object | null;
}

/** Inserts a change into the study's history, within the change's own transaction. */
export function logChange(
  { db, studyId, who }: Write,
  { table, key, before, after }: Change,
): Promise<void> {
  const json = (value: object | null) => (value === null ? null : asJson(value));
  return execute(
    db,
    `insert into changes (study_id, table_name, row_key, before, after, who)
     values ($1, $2, $3, $4, $5, $6)`,
    [studyId, table, asJson(key), json(before), json(after), who],
  );
}

/** A change as a page shows it. */
const loggedChangeRow = z.strictObject({
  at: z.string(),
  /** As they called themselves at the bench. */
  who: z.string().nullable(),
  /** Who was signed in; null where nobody had to be. */
  person: z.string().nullable(),
  before: z.unknown(),
  after: z.unknown(),
});
export type LoggedChange = z.infer<typeof loggedChangeRow>;

/** Who was signed in at a change: a person or a key of this workshop, or whom the package named that it came in. */
export const PERSON = `
  coalesce((select name from people where 'person:' || person_id = actor),
           (select 'key ' || name from access_keys where 'key:' || key_id = actor),
           person)`;

/** The changes of a row, the latest first. */
export const listChanges = (
  db: Database,
  studyId: string,
  table: string,
  key: Record<string, string>,
): Promise<LoggedChange[]> =>
  query(
    db,
    loggedChangeRow,
    `select ${moments('at')}, who, before, after,
       ${PERSON} as person
     from changes
     where study_id = $1 and table_name = $2 and row_key = $3::jsonb
     order by change_id desc limit 200`,
    [studyId, table, asJson(key)],
  );

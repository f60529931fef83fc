import * as z from 'zod';
import { presentActor } from '../actor';
import { asJson, execute, moments, query, type Database } from '../database';

/** Something that happened at the doors. */
const accessEntryRow = z.strictObject({
  at: z.string(),
  what: z.string(),
  /** In whose name: `person:…`, `key:…`; null where nobody had come in yet. */
  actor: z.string().nullable(),
  /** Whom it was about, as they were called then. */
  name: z.string().nullable(),
  address: z.string().nullable(),
  detail: z.record(z.string(), z.unknown()),
});
export type AccessEntry = z.infer<typeof accessEntryRow>;

/** Writes down what happened at the doors. Never a password, a token or a reading. */
export const logAccess = (
  db: Database,
  entry: Partial<Omit<AccessEntry, 'at'>> & { what: string },
): Promise<void> =>
  execute(
    db,
    `insert into access_log (what, actor, name, address, detail) values ($1, $2, $3, $4, $5)`,
    [
      entry.what,
      entry.actor ?? presentActor(),
      entry.name ?? null,
      entry.address ?? null,
      asJson(entry.detail ?? {}),
    ],
  );

/** What happened at the doors, the latest first, where it has a text in it. */
export const listAccess = (db: Database, text: string, limit: number): Promise<AccessEntry[]> =>
  query(
    db,
    accessEntryRow,
    `select ${moments('at')}, what, actor, name, address, detail from access_log
     where $1 = '' or position(lower($1) in lower(concat_ws(' ', what, name, address, detail::text))) > 0
     order by entry_id desc limit $2`,
    [text, limit],
  );

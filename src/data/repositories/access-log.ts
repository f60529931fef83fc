import { presentActor } from '../actor';
import { asJson, execute, moments, select, type Database } from '../database';

/** Something that happened at the doors. */
export interface AccessEntry {
  at: string;
  what: string;
  /** In whose name: `person:…`, `key:…`; null where nobody had come in yet. */
  actor: string | null;
  /** Whom it was about, as they were called then. */
  name: string | null;
  address: string | null;
  detail: Record<string, unknown>;
}

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
  select(
    db,
    `select ${moments('at')}, what, actor, name, address, detail from access_log
     where $1 = '' or position(lower($1) in lower(concat_ws(' ', what, name, address, detail::text))) > 0
     order by entry_id desc limit $2`,
    [text, limit],
  );

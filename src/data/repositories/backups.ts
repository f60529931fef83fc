import * as z from 'zod';
import { execute, moments, query, someRow, type Database } from '../database';

/** What became of a backup. */
const madeBackupRow = z.strictObject({
  at: z.string(),
  file: z.string(),
  /** Its size, bytes; null where it failed. */
  bytes: z.number().nullable(),
  rows: z.number().nullable(),
  /** Why it failed, for people; null where it did not. */
  fault: z.string().nullable(),
});
export type MadeBackup = z.infer<typeof madeBackupRow>;

const MOST_KEPT = 200;

/** Notes what became of a backup; of long ago is forgotten. */
export async function noteBackup(db: Database, made: Omit<MadeBackup, 'at'>): Promise<void> {
  await execute(db, 'insert into backups (file, bytes, rows, fault) values ($1, $2, $3, $4)', [
    made.file,
    made.bytes,
    made.rows,
    made.fault,
  ]);
  await execute(
    db,
    `delete from backups where backup_id not in (
       select backup_id from backups order by backup_id desc limit ${MOST_KEPT})`,
  );
}

/** The last backup that is good, and the last of all; null where there is none. */
export async function lastBackups(
  db: Database,
): Promise<{ good: MadeBackup | null; last: MadeBackup | null }> {
  const columns = `${moments('at')}, file, bytes::float8 as bytes, rows::float8 as rows, fault`;
  const first = async (where: string) => {
    const [found] = await query(
      db,
      madeBackupRow,
      `select ${columns} from backups ${where} order by backup_id desc limit 1`,
    );
    return found ?? null;
  };
  return { good: await first('where fault is null'), last: await first('') };
}

const databaseBytesRow = z.strictObject({ bytes: z.number() });

/** Bytes that the database takes on its disk. */
export async function databaseBytes(db: Database): Promise<number> {
  const [found] = await query(
    db,
    databaseBytesRow,
    'select pg_database_size(current_database())::float8 as bytes',
  );
  return found?.bytes ?? 0;
}

/** Whether no backup was read back for so long, ms. */
export async function isReadBackDue(db: Database, everyMs: number): Promise<boolean> {
  const found = await query(
    db,
    someRow,
    'select 1 from backup_checks where at > now() - make_interval(secs => $1) limit 1',
    [everyMs / 1000],
  );
  return found.length === 0;
}

/** Notes that a backup was read back, and what was wrong. */
export async function noteReadBack(
  db: Database,
  file: string,
  fault: string | null,
): Promise<void> {
  await execute(db, 'insert into backup_checks (file, fault) values ($1, $2)', [file, fault]);
  await execute(db, "delete from backup_checks where at < now() - interval '1 year'");
}

const lastReadBackRow = z.strictObject({ at: z.string(), fault: z.string().nullable() });

/** When a backup was last read back, and what was wrong; null where none was. */
export async function lastReadBack(
  db: Database,
): Promise<{ at: string; fault: string | null } | null> {
  const [found] = await query(
    db,
    lastReadBackRow,
    `select ${moments('at')}, fault from backup_checks order by check_id desc limit 1`,
  );
  return found ?? null;
}

import { SteadyClient } from './steady-client';

/** A number of our own, under which the processes on one database know of each other. */
const PRESENCE_LOCK = 7_205_319;

/** That a process works on a database, as long as it is not ended. */
export interface Presence {
  /** Whether no other process worked on the database when this one came. */
  isAlone: boolean;
  end(): Promise<void>;
}

/**
 * Says that this process works on a database. PostgreSQL forgets it with the connection, however the
 * process ends, so that one that comes later knows that what was left undone is nobody's.
 */
export async function bePresent(databaseUrl: string): Promise<Presence> {
  // The connection only holds a lock: where it breaks, the pool's queries say so.
  const client = new SteadyClient({ connectionString: databaseUrl, keepAlive: true });
  await client.connect();
  const lock = async (sql: string) =>
    (await client.query<{ held: boolean }>(sql, [PRESENCE_LOCK])).rows[0]?.held === true;
  const isAlone = await lock('select pg_try_advisory_lock($1) as held');
  await lock('select pg_try_advisory_lock_shared($1) as held');
  if (isAlone) await lock('select pg_advisory_unlock($1) as held');
  return { isAlone, end: () => client.end() };
}

import { randomInt } from 'node:crypto';
import { keepConnection } from './lasting-connection';

/** A number of our own, under which the processes on one database know of each other. */
const PRESENCE_LOCK = 7_205_319;
const MOST_NUMBER = 2 ** 31 - 1;

/** That a process works on a database, as long as it is not ended. */
export interface Presence {
  /** The number by which other processes know whether this one is still there. */
  number: number;
  /** Whether no other process worked on the database when this one came. */
  isAlone: boolean;
  end(): Promise<void>;
}

/** SQL that is true of a process that is there: `process` names the column of its number. */
export const isPresent = (process: string): string => `exists (
  select 1 from pg_locks l
  where l.locktype = 'advisory' and l.objsubid = 2 and l.granted
    and l.database = (select oid from pg_database where datname = current_database())
    and l.classid = ${PRESENCE_LOCK} and l.objid = ${process}
)`;

/**
 * Says that this process works on a database. PostgreSQL forgets it with the connection, however the
 * process ends, so that one that comes later knows that what was left undone is nobody's.
 */
export async function bePresent(databaseUrl: string): Promise<Presence> {
  const number = randomInt(1, MOST_NUMBER);
  let isAlone = false;
  let [settle, fail]: [() => void, (error: unknown) => void] = [() => undefined, () => undefined];
  const first = new Promise<void>((resolve, reject) => {
    [settle, fail] = [resolve, reject];
  });
  const connection = keepConnection(databaseUrl, async (client, isFirst) => {
    try {
      const lock = async (sql: string) =>
        (await client.query<{ held: boolean }>(sql, [PRESENCE_LOCK])).rows[0]?.held === true;
      const had = await lock('select pg_try_advisory_lock($1) as held');
      await lock('select pg_try_advisory_lock_shared($1) as held');
      if (had) await lock('select pg_advisory_unlock($1) as held');
      await client.query('select pg_try_advisory_lock($1, $2)', [PRESENCE_LOCK, number]);
      if (isFirst) isAlone = had;
      settle();
    } catch (error) {
      fail(error);
      throw error;
    }
  });
  await first;
  return { number, isAlone, end: () => connection.end() };
}

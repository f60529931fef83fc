import { execute, type Database } from './database';
import { keepConnection, type LastingConnection } from './lasting-connection';
import { transact } from './write';

const ASK_AGAIN_MS = 1000;

/** Locks of our own, each of which one process of all on a database holds at a time. */
export const HELD = { link: 7_205_320, queues: 7_205_321, backup: 7_205_322 } as const;

/**
 * Waits for a lock that one process holds at a time, and holds it as long as its connection lasts: when that
 * process dies, another one has it within a second or two.
 *
 * @param onHeld told when this process has it
 * @param onLost told when it has it no more, though it was not ended
 */
export function holdLock(
  databaseUrl: string,
  lock: keyof typeof HELD,
  onHeld: () => void,
  onLost: () => void,
): LastingConnection {
  let timer: NodeJS.Timeout | undefined;
  let isHeld = false;
  const connection = keepConnection(
    databaseUrl,
    async (client) => {
      const ask = async (): Promise<void> => {
        const { rows } = await client.query<{ held: boolean }>(
          'select pg_try_advisory_lock($1) as held',
          [HELD[lock]],
        );
        if (rows[0]?.held === true) {
          isHeld = true;
          onHeld();
          return;
        }
        // Where the connection breaks meanwhile, it is asked anew with the next one.
        timer = setTimeout(() => void ask().catch(() => undefined), ASK_AGAIN_MS);
        timer.unref();
      };
      await ask();
    },
    () => {
      clearTimeout(timer);
      if (isHeld) onLost();
      isHeld = false;
    },
  );
  return {
    end: async () => {
      clearTimeout(timer);
      await connection.end();
    },
  };
}

/** Does some work while no other process on the database does the same. */
export const oneAtATime = <Result>(
  db: Database,
  lock: keyof typeof HELD,
  work: () => Promise<Result>,
): Promise<Result> =>
  transact(db, async (bound) => {
    await execute(bound, 'select pg_advisory_xact_lock($1)', [HELD[lock]]);
    return work();
  });

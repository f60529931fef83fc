import { SteadyClient } from './steady-client';

const AGAIN_MS = 1000;
/** So often it is made sure that a connection still carries: a wire that is cut says nothing. */
const ALIVE_MS = 15_000;

/** A connection that is made anew whenever it breaks, until it is ended. */
export interface LastingConnection {
  end(): Promise<void>;
}

/**
 * Keeps one connection to a database beside the pool: for what belongs to a connection, such as locks that
 * are held for long and notifications.
 *
 * @param ready what is done with each connection as soon as it is there
 * @param lost told when a connection that was ready has broken
 */
export function keepConnection(
  databaseUrl: string,
  ready: (client: SteadyClient, isFirst: boolean) => Promise<void>,
  lost: () => void = () => undefined,
): LastingConnection {
  let client: SteadyClient | null = null;
  let timer: NodeJS.Timeout | undefined;
  let isEnded = false;
  let isFirst = true;
  let isReady = false;
  const again = (broken: SteadyClient) => {
    if (client !== broken) return;
    client = null;
    clearTimeout(timer);
    if (isReady) lost();
    isReady = false;
    broken.end().catch(() => undefined);
    if (!isEnded) timer = setTimeout(open, AGAIN_MS).unref();
  };
  function open(): void {
    const own = new SteadyClient({
      connectionString: databaseUrl,
      keepAlive: true,
      query_timeout: ALIVE_MS,
    });
    client = own;
    own.on('error', () => again(own));
    own.on('end', () => again(own));
    const look = () => {
      timer = setTimeout(() => void own.query('select 1').then(look, () => again(own)), ALIVE_MS);
      timer.unref();
    };
    own
      .connect()
      .then(() => ready(own, isFirst))
      .then(
        () => {
          isFirst = false;
          isReady = true;
          look();
        },
        () => again(own),
      );
  }
  open();
  return {
    end: async () => {
      isEnded = true;
      clearTimeout(timer);
      const last = client;
      client = null;
      await last?.end().catch(() => undefined);
    },
  };
}

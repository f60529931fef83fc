import pg from 'pg';

/**
 * A connection whose error is no end of the process when nobody listens for it yet or any more: the
 * pools put their own listeners on between queries, and an administrator's word can come before them.
 * Whoever asks something of a broken connection is told.
 */
export class SteadyClient extends pg.Client {
  constructor(config?: string | pg.ClientConfig) {
    super(config);
    this.on('error', () => undefined);
  }
}

/** The driver, all of whose connections are steady. */
export const steadyDriver: object = Object.create(pg, {
  Client: { value: SteadyClient },
}) as object;

import { afterAll, beforeAll } from 'vitest';
import { apiOf, type Api } from './api';
import { freshDatabase } from './database';
import { kill, startServer, type Server } from './server';

/** The application on a database of its own, for all tests of a file. */
export interface Served extends Api {
  server: () => Server;
  db: () => Awaited<ReturnType<typeof freshDatabase>>['db'];
  url: () => string;
  databaseUrl: () => string;
}

/** Serves the application for the tests of a file, with some studies in it. */
export function served(studies: readonly string[] = []): Served {
  let server: Server;
  let fresh: Awaited<ReturnType<typeof freshDatabase>>;
  beforeAll(async () => {
    fresh = await freshDatabase(studies);
    server = await startServer(fresh.url, { studies });
  });
  afterAll(async () => {
    await kill(server.child);
    await fresh.drop();
  });
  const url = () => server.url;
  return {
    server: () => server,
    db: () => fresh.db,
    databaseUrl: () => fresh.url,
    url,
    ...apiOf(url),
  };
}

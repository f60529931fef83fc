import { afterAll, beforeAll } from 'vitest';
import { apiOf, type Api } from './api';
import { freshDatabase, type FreshDatabase } from './database';
import { kill, startServer, type Server } from './server';

/** The application on a database of its own, for all tests of a file. */
export interface Served extends Api {
  server: () => Server;
  db: () => FreshDatabase['db'];
  url: () => string;
  databaseUrl: () => string;
}

interface Running {
  server: Server;
  fresh: FreshDatabase;
}

async function serve(studies: readonly string[], name?: string): Promise<Running> {
  const fresh = await freshDatabase(studies, name);
  return { fresh, server: await startServer(fresh.url, { studies }) };
}

function apiTo(running: () => Running): Served {
  const url = () => running().server.url;
  return {
    server: () => running().server,
    db: () => running().fresh.db,
    databaseUrl: () => running().fresh.url,
    url,
    ...apiOf(url),
  };
}

/** Serves the application for the tests of a file, with some studies in it. */
export function served(studies: readonly string[] = []): Served {
  let running: Running;
  beforeAll(async () => {
    running = await serve(studies);
  });
  afterAll(async () => {
    await kill(running.server.child);
    await running.fresh.drop();
  });
  return apiTo(() => running);
}

let common: Promise<Running> | undefined;

/**
 * Serves the application for tests that bring a study of their own and look at nothing else: one is there for all
 * such files of a process, so that it starts once and is warm. It ends with the process.
 */
export function sharedServed(): Served {
  let running: Running;
  beforeAll(async () => {
    common ??= serve([], `test_shared_${process.env.VITEST_POOL_ID ?? '0'}`);
    running = await common;
  });
  return apiTo(() => running);
}

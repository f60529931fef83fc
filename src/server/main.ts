import { once } from 'node:events';
import { createServer, type Server } from 'node:http';
import { delimiter, join } from 'node:path';
import { pathToFileURL } from 'node:url';
import compression from 'compression';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { listStudies, migrate } from '../data';
import { app, closeApp } from './app';
import { importStudy } from './import-study';
import { startJobs } from './jobs';
import { openLink } from './link';
import { isLoopback } from './http/origin';

const DEFAULT_PORT = 4680;
const PORTS_TO_TRY = 20;
const UPLOAD_TIMEOUT_MS = 60 * 60 * 1000;

const HEADERS = {
  'x-content-type-options': 'nosniff',
  'x-frame-options': 'DENY',
  'referrer-policy': 'same-origin',
  'cross-origin-opener-policy': 'same-origin',
  'cross-origin-resource-policy': 'same-origin',
  'permissions-policy': 'geolocation=(), microphone=()',
};

type Handler = (req: IncomingMessage, res: ServerResponse) => void;

/** Imports the demo studies into a database without any; the last one stands first in the list. */
async function loadDemo(): Promise<void> {
  const { db, log } = app();
  const paths = process.env.DEMO_STUDY?.split(delimiter).filter(Boolean) ?? [];
  if (paths.length === 0 || (await listStudies(db)).length > 0) return;
  for (const path of paths) {
    const { studyId, faults } = await importStudy(db, path);
    if (studyId === null) log.error({ faults }, 'the demo study has faults');
  }
}

/** Listens on the port that is asked for, or on the first free one from the default on. */
async function listen(server: Server, host: string, asked: number | null): Promise<void> {
  const first = asked ?? DEFAULT_PORT;
  const last = asked ?? DEFAULT_PORT + PORTS_TO_TRY - 1;
  for (let port = first; port <= last; port += 1) {
    try {
      server.listen(port, host);
      await once(server, 'listening');
      return;
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'EADDRINUSE') throw error;
    }
  }
  throw new Error(
    asked === null
      ? `All ports from ${first} to ${last} are taken: set PORT to a free one.`
      : `Port ${asked} is taken: set PORT to another one.`,
  );
}

/** Starts the web server; resolves when it answers. */
async function serve(): Promise<void> {
  const host = process.env.HOST ?? '127.0.0.1';
  const port = process.env.PORT === undefined ? null : Number(process.env.PORT);
  if (!isLoopback(host) && host !== '::1') {
    throw new Error(
      `HOST is ${host}: this version has no sign-in yet, and so it only listens on this machine (127.0.0.1 or localhost). Unset HOST.`,
    );
  }
  await migrate(app().db.sequelize);
  await loadDemo();
  await startJobs(app());
  app().link = await openLink(app());
  const entry = join(process.cwd(), 'dist', 'web', 'server', 'entry.mjs');
  const { handler } = (await import(pathToFileURL(entry).href)) as { handler: Handler };
  const compress = compression() as unknown as (
    req: IncomingMessage,
    res: ServerResponse,
    next: () => void,
  ) => void;
  const server = createServer((req, res) => {
    for (const [name, value] of Object.entries(HEADERS)) res.setHeader(name, value);
    compress(req, res, () => handler(req, res));
  });
  server.requestTimeout = UPLOAD_TIMEOUT_MS;
  const stop = () => {
    server.close(() => {
      closeApp().then(
        () => process.exit(0),
        () => process.exit(1),
      );
    });
    server.closeIdleConnections();
    setTimeout(() => server.closeAllConnections(), 3000).unref();
  };
  process.on('SIGTERM', stop);
  process.on('SIGINT', stop);
  await listen(server, host === 'localhost' ? '127.0.0.1' : host, port);
  const address = server.address();
  const shown = typeof address === 'object' && address ? address.port : DEFAULT_PORT;
  process.stdout.write(`Vergleich is running at http://${host}:${shown}/\n`);
  const link = app().link?.address ?? '';
  process.stdout.write(`Machines speak to it at ${link}\n`);
  process.send?.({ port: shown, link });
}

serve().catch((error: unknown) => {
  process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`);
  process.exit(1);
});

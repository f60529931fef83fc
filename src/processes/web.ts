import { once } from 'node:events';
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import { delimiter, join } from 'node:path';
import { pathToFileURL } from 'node:url';
import compression from 'compression';
import { migrateDatabase } from '../server/migrate';
import { clearFolders } from '../files/temporary';
import { app, closeApp } from '../server/app';
import { loadDemo } from '../server/demo';
import { refuseEarly, refuseUnreadable } from '../server/http/gate';
import { isLoopback } from '../server/http/origin';
import { startJobs } from '../server/jobs';
import { openLink } from '../server/link';

const DEFAULT_PORT = 4680;
const PORTS_TO_TRY = 20;
const UPLOAD_TIMEOUT_MS = 60 * 60 * 1000;
const IDLE_TIMEOUT_MS = 75_000;
/** So long a server that is to end waits for what is under way. */
const PATIENCE_MS = 8000;

const HEADERS = {
  'x-content-type-options': 'nosniff',
  'x-frame-options': 'DENY',
  'referrer-policy': 'same-origin',
  'cross-origin-opener-policy': 'same-origin',
  'cross-origin-resource-policy': 'same-origin',
  'permissions-policy': 'geolocation=(), microphone=()',
};

type Handler = (req: IncomingMessage, res: ServerResponse) => void;

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

/** The port that the environment asks for; null for the first free one. */
function askedPort(): number | null {
  const text = process.env.PORT;
  if (text === undefined || text === '') return null;
  const port = Number(text);
  if (/^\d{1,5}$/.test(text) && port <= 65535) return port;
  throw new Error(`PORT is ${text}: it must be a number from 0 to 65535, or unset.`);
}

function askedHost(): string {
  const host = process.env.HOST ?? '127.0.0.1';
  if (isLoopback(host) || host === '::1') return host;
  throw new Error(
    `HOST is ${host}: this version has no sign-in yet, and so it only listens on this machine (127.0.0.1 or localhost). Unset HOST.`,
  );
}

/** Ends the process when it is told to, after what is under way; by force where that takes long. */
function endWhenTold(server: Server | null): void {
  let isEnding = false;
  const stop = () => {
    if (isEnding) return;
    isEnding = true;
    const end = (code: number) => {
      clearFolders(true);
      process.exit(code);
    };
    setTimeout(() => end(1), PATIENCE_MS).unref();
    const close = () =>
      closeApp().then(
        () => end(0),
        () => end(1),
      );
    if (!server?.listening) {
      void close();
      return;
    }
    server.close(() => void close());
    server.closeIdleConnections();
    setTimeout(() => server.closeAllConnections(), 3000).unref();
  };
  for (const signal of ['SIGTERM', 'SIGINT', 'SIGHUP'] as const) process.on(signal, stop);
  // Started by another program, it does not outlive it.
  if (process.connected) process.on('disconnect', stop);
}

/** Starts the web server; resolves when it answers. */
async function serve(): Promise<void> {
  const host = askedHost();
  const port = askedPort();
  const compress = compression() as unknown as (
    req: IncomingMessage,
    res: ServerResponse,
    next: () => void,
  ) => void;
  let handler: Handler | null = null;
  const server = createServer((req, res) => {
    for (const [name, value] of Object.entries(HEADERS)) res.setHeader(name, value);
    if (refuseEarly(req, res)) return;
    const answer = () => compress(req, res, () => handler?.(req, res));
    app()
      .pages.showAgain(req, res)
      .then((isShown) => isShown || answer(), answer);
  });
  server.requestTimeout = UPLOAD_TIMEOUT_MS;
  // Longer than clients and proxies keep an idle connection: who sends on one finds it open.
  server.keepAliveTimeout = IDLE_TIMEOUT_MS;
  server.on('clientError', refuseUnreadable);
  endWhenTold(server);
  clearFolders();
  await migrateDatabase();
  await loadDemo(process.env.DEMO_STUDY?.split(delimiter).filter(Boolean) ?? []);
  await startJobs(app());
  app().link = await openLink(app());
  const entry = join(process.cwd(), 'dist', 'web', 'server', 'entry.mjs');
  ({ handler } = (await import(pathToFileURL(entry).href)) as { handler: Handler });
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
  clearFolders(true);
  process.exit(1);
});

import type { Server } from 'node:http';
import { delimiter, join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { migrateDatabase } from '../server/migrate';
import { clearFolders } from '../files/temporary';
import { afterwards, type App } from '../server/app';
import { bareHost, doors, outerName, tellDoors } from '../server/network/doors';
import { isOwned } from '../server/access/front';
import { linkForOwner } from '../server/access/links';
import { loadDemo, publishDemo } from '../server/demo';
import { askedPort, listenOnFirst } from '../server/network/listen';
import { isLoopback } from '../server/network/origin';
import { openLink } from '../server/link';
import { openApp } from './app';
import { certificateFor, type Certificate } from './certificate';
import { endWhenTold, endWithWords, outliveStrayFaults } from './ending';
import { startJobs } from './jobs';
import { frontDoor, makeServer, type Handler } from './front-door';

const DEFAULT_PORT = 4680;
const PORTS_TO_TRY = 20;
/** This computer only. */
const INNER = '127.0.0.1';
/** So often it is asked whether somebody owns the application by now. */
const OWNER_ASKED_MS = 1000;

/** Listens on the port that is asked for, or on the first free one from the default on; returns it. */
async function listen(server: Server, host: string, asked: number | null): Promise<number> {
  const ports = Array.from({ length: PORTS_TO_TRY }, (_, at) => DEFAULT_PORT + at);
  const port = await listenOnFirst(server, host, asked === null ? ports : [asked]);
  if (port !== null) return port;
  throw new Error(
    asked === null
      ? `All ports from ${DEFAULT_PORT} to ${ports.at(-1)} are taken: set PORT to a free one.`
      : `Port ${asked} is taken: set PORT to another one.`,
  );
}

/** The address to listen on, as the environment says; beyond loopback the doors must be open. */
function askedHost(): string {
  const { isOpen, isProxied } = doors();
  // A proxy reaches it on this computer: others come through the proxy only.
  const host = process.env.HOST ?? (isOpen && !isProxied ? '0.0.0.0' : '127.0.0.1');
  if (isOpen || isLoopback(host) || host === '::1') return host;
  throw new Error(
    `HOST is ${host}: beyond this computer the doors must be open, with a sign-in: npm start -- --open. Or unset HOST.`,
  );
}

/** The certificate that is wanted; null where there is no TLS to speak. */
async function wantedCertificate(): Promise<Certificate | null> {
  const { isOpen, isProxied, isSecure, names } = doors();
  if (!isOpen || isProxied || !isSecure) return null;
  const folder = join(process.env.KEEP_DIR ?? join(process.cwd(), '.cache'), 'doors');
  const certificate = await certificateFor(process.env, folder, names);
  tellDoors({ fingerprint: certificate.isOwn ? certificate.fingerprint : null });
  return certificate;
}

const say = (text: string) => process.stdout.write(`${text}\n`);

/** Says at which addresses the application is there for others. */
function printOpenWarning(scheme: string, port: number): void {
  const { publicUrl, fingerprint, isProxied } = doors();
  const name = outerName() ?? bareHost(process.env.HOST ?? '');
  say(`Open to the house at ${publicUrl ?? `${scheme}://${name}:${port}`}/`);
  if (fingerprint)
    say(`Its certificate is its own; compare its SHA-256 fingerprint: ${fingerprint}`);
  if (scheme === 'http' && !isProxied) {
    say('PLAIN HTTP: anyone on this network can read passwords and readings.');
  }
}

/** Lets machines elsewhere in, by TLS only. */
async function openLinkTo(
  { link }: App,
  host: string,
  certificate: Certificate | null,
): Promise<void> {
  if (!certificate || isLoopback(host)) return;
  const port = await link?.openTo?.({ ...certificate, host });
  if (!link || port == null) return;
  link.outerAddress = `mqtts://${outerName() ?? host}:${port}`;
  say(`Machines elsewhere speak to it at ${link.outerAddress}, each by a key of its own`);
}

/** Opens the doors as soon as somebody owns the application. */
function openWhenOwned(app: App, open: () => Promise<void>): void {
  const waiting = setInterval(() => {
    // The database may be away for a moment: it is asked again.
    void isOwned(app).then(
      (isSo) => {
        if (!isSo) return;
        clearInterval(waiting);
        open().catch(endWithWords);
      },
      () => undefined,
    );
  }, OWNER_ASKED_MS);
  waiting.unref();
}

/** Starts the web server; resolves when it answers. */
async function serve(): Promise<void> {
  const app = openApp();
  const host = askedHost();
  const outer = host === 'localhost' ? INNER : host;
  const asked = askedPort('PORT');
  let handler: Handler | null = null;
  const listener = frontDoor(app, () => handler);
  const certificate = await wantedCertificate();
  const scheme = certificate ? 'https' : 'http';
  let server = makeServer(listener, certificate);
  endWhenTold(app, () => server);
  outliveStrayFaults(app);
  clearFolders();
  await migrateDatabase(app);
  const demo = await loadDemo(app, process.env.DEMO_STUDY?.split(delimiter).filter(Boolean) ?? []);
  // Workers of their own do them where they are said to.
  await startJobs(app, process.env.JOBS !== 'elsewhere');
  const isWaiting = doors().isOpen && !(await isOwned(app));
  app.link = await openLink(app);
  const entry = join(process.cwd(), 'dist', 'web', 'server', 'entry.mjs');
  ({ handler } = (await import(pathToFileURL(entry).href)) as { handler: Handler });
  // Beyond this computer only where somebody owns it.
  const port = await listen(server, isWaiting ? INNER : outer, asked);
  if (process.env.DEMO_REPORTS === '1') afterwards(app, () => publishDemo(app, demo));
  const link = app.link?.address ?? '';
  const local = `${scheme}://${isLoopback(host) ? host : '127.0.0.1'}:${port}`;
  say(`Vergleich is running at ${local}/`);
  say(`Machines speak to it at ${link}`);
  const open = async () => {
    printOpenWarning(scheme, port);
    await openLinkTo(app, outer, certificate);
  };
  const enter = isWaiting ? await linkForOwner(app.db) : null;
  if (enter) {
    say(
      'This installation has no owner yet. Open this address on this computer within 15 minutes; ' +
        `it works once: ${local}${enter}`,
    );
    openWhenOwned(app, async () => {
      // Behind a proxy it stays where it listens: who is on the way in at this moment is let in.
      if (outer !== INNER) {
        server.close();
        server = makeServer(listener, certificate);
        await listen(server, outer, port);
      }
      await open();
    });
  } else if (doors().isOpen) await open();
  process.send?.({ port, link, scheme, enter });
}

serve().catch(endWithWords);

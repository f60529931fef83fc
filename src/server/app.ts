import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import type { Logger } from 'pino';
import { Piscina } from 'piscina';
import { openDatabase, revisionOf, type Database, type Presence } from '../data';
import { ShownPages } from './http/shown-pages';
import type { JobQueue } from './jobs/queue';
import type { Link } from './link/link';
import { Newsroom } from './live/newsroom';
import { openLog } from './log';

/** What the server works with: the database, a log, threads for the calculations. */
export interface App {
  db: Database;
  log: Logger;
  threads: Piscina;
  /** Pages of results as they were shown. */
  pages: ShownPages;
  /** Who wants to hear of what changes. */
  newsroom: Newsroom;
  /** Threads that read and check packages. */
  importers: Piscina;
  /** Threads that read sliced files, apart from those that a page waits for. */
  readers: Piscina;
  /** Threads that read and draw meshes. */
  drawers: Piscina;
  /** The thread that looks into photos, one at a time: each may fill much memory. */
  photographers: Piscina;
  /** The threads that make reports. */
  reporters: Piscina;
  /** Which drawing this is: sheets of other ones are drawn anew. */
  drawingEdition: string;
  /** Work that outlives a request; there once the server has started it. */
  jobs: JobQueue | null;
  /** That this process is there, once the server has started. */
  presence: Presence | null;
  /** The bench link; there once the server has started it. */
  link: Link | null;
  /** Which calculations these are: results of other ones are not taken for theirs. */
  edition: string;
}

const KEY = Symbol.for('vergleich.app');
const holder = globalThis as unknown as Record<symbol, App | undefined>;

/** A hash of threads' code. */
function editionOf(...files: string[]): string {
  const hash = createHash('sha256');
  for (const file of files) hash.update(readFileSync(file));
  return hash.digest('hex').slice(0, 16);
}

function openApp(): App {
  const databaseUrl = process.env.DATABASE_URL;
  if (!databaseUrl) throw new Error('DATABASE_URL must name the database');
  const folder = join(process.cwd(), 'dist', 'threads');
  const evaluation = join(folder, 'evaluate.js');
  const reading = join(folder, 'toolpath.js');
  const drawing = join(folder, 'mesh.js');
  // One processor is left to those who wait for a page or a reading.
  const maxThreads = Math.max(1, Math.min(4, availableParallelism() - 1));
  const pool = { minThreads: 1, maxThreads, idleTimeout: 60_000 };
  const db = openDatabase(databaseUrl);
  return {
    db,
    pages: new ShownPages((study) => revisionOf(db, study)),
    newsroom: new Newsroom(databaseUrl),
    edition: editionOf(evaluation, reading),
    drawingEdition: editionOf(drawing),
    log: openLog(),
    threads: new Piscina({ filename: evaluation, ...pool }),
    importers: new Piscina({
      filename: join(folder, 'package.js'),
      ...pool,
      minThreads: 0,
      resourceLimits: { maxOldGenerationSizeMb: 170, maxYoungGenerationSizeMb: 24 },
    }),
    readers: new Piscina({
      filename: reading,
      ...pool,
      minThreads: 0,
      resourceLimits: { maxOldGenerationSizeMb: 300 },
    }),
    drawers: new Piscina({
      filename: drawing,
      ...pool,
      minThreads: 0,
      resourceLimits: { maxOldGenerationSizeMb: 600 },
    }),
    photographers: new Piscina({
      filename: join(folder, 'photo.js'),
      minThreads: 0,
      maxThreads: 1,
      idleTimeout: 60_000,
    }),
    reporters: new Piscina({
      filename: join(folder, 'report.js'),
      minThreads: 0,
      maxThreads: 2,
      idleTimeout: 60_000,
    }),
    jobs: null,
    presence: null,
    link: null,
  };
}

/** The one app of this process; opened when it is first asked for. */
export const app = (): App => (holder[KEY] ??= openApp());

/** Does what follows from a change that is committed: it never turns the answer into a failure. */
export function afterwards(work: () => Promise<unknown>): void {
  work().catch((error: unknown) => app().log.error(error, 'after a change'));
}

/** Closes what the app holds, threads first. */
export async function closeApp(): Promise<void> {
  const open = holder[KEY];
  holder[KEY] = undefined;
  if (!open) return;
  await open.link?.stop();
  await open.newsroom.end();
  await open.jobs?.stop();
  await open.presence?.end();
  await open.importers.close({ force: true });
  await open.photographers.close({ force: true });
  await open.reporters.close({ force: true });
  await open.drawers.close({ force: true });
  await open.readers.close({ force: true });
  await open.threads.close({ force: true });
  await open.db.sequelize.close();
}

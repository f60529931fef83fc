import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { Piscina } from 'piscina';
import { openDatabase, revisionOf } from '../data';
import type { App } from '../server/app';
import { ShownPages } from '../server/http/shown-pages';
import { Broadcaster } from '../server/live/broadcaster';
import { openLog } from '../server/log';

/** A hash of threads' code. */
function editionOf(...files: string[]): string {
  const hash = createHash('sha256');
  for (const file of files) hash.update(readFileSync(file));
  return hash.digest('hex').slice(0, 16);
}

/** Opens all that the server works with. @throws Error where no database is named */
export function openApp(): App {
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
    broadcaster: new Broadcaster(databaseUrl),
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

/** Closes what the app holds, threads first. */
export async function closeApp(open: App): Promise<void> {
  await open.link?.stop();
  await open.broadcaster.end();
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

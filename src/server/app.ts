import type { Logger } from 'pino';
import type { Piscina } from 'piscina';
import type { EvaluateOutcome, EvaluateTask } from '../core/answers/results';
import type { Database, Presence } from '../data';
import type { MeshOutcome, MeshTask } from '../files/mesh-task';
import type { PackageOutcome, PackageTask } from '../files/packages';
import type { PhotoOutcome, PhotoTask } from '../files/photos';
import type { FrameTask, ReportOutcome, ReportTask } from '../files/report';
import type { ReadOutcome, ReadTask } from '../files/sliced';
import type { ShownPages } from './http/shown-pages';
import type { JobQueue } from './jobs/queue';
import type { Link } from './link/link';
import type { Broadcaster } from './live/broadcaster';

/**
 * What the server works with: the database, a log, threads for the calculations. The process makes it
 * (`processes/app.ts`) and hands it on; a page has it as `locals.app`.
 */
export interface App {
  db: Database;
  log: Logger;
  threads: Piscina<EvaluateTask, EvaluateOutcome>;
  /** Pages of results as they were shown. */
  pages: ShownPages;
  /** Who wants to hear of what changes. */
  broadcaster: Broadcaster;
  /** Threads that read and check packages. */
  importers: Piscina<PackageTask, PackageOutcome>;
  /** Threads that read sliced files, apart from those that a page waits for. */
  readers: Piscina<ReadTask, ReadOutcome>;
  /** Threads that read and draw meshes. */
  drawers: Piscina<MeshTask, MeshOutcome>;
  /** The thread that looks into photos, one at a time: each may fill much memory. */
  photographers: Piscina<PhotoTask, PhotoOutcome>;
  /** The threads that make reports. */
  reporters: Piscina<ReportTask | FrameTask, ReportOutcome>;
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

/** Does what follows from a change that is committed: it never turns the answer into a failure. */
export function afterwards(app: App, work: () => Promise<unknown>): void {
  work().catch((error: unknown) => app.log.error(error, 'after a change'));
}

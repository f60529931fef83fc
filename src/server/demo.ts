import { basename } from 'node:path';
import {
  DEMO_KEY,
  addRevision,
  askAgain,
  countStudies,
  hasImports,
  listRevisions,
  NotFoundError,
  writeStudy,
} from '../data';
import type { App } from './app';
import { makeReport } from './report/job';
import { changeRevision } from './report/revisions';
import { aboutStudy } from './study/studies';
import { importStudy } from './study/import';
import { packageReader } from './study/read-package';

/**
 * Imports the demo studies into a database without any; the last one stands first in the list. One
 * that is missing because the process was killed between two comes at the next start; one that a
 * person has deleted does not come back.
 *
 * @param paths folders of their packages
 */
export async function loadDemo(app: App, paths: readonly string[]): Promise<string[]> {
  const { db, log } = app;
  if (paths.length === 0) return [];
  if ((await countStudies(db)) > 0 && !(await hasImports(db, DEMO_KEY))) return [];
  const studies: string[] = [];
  for (const path of paths) {
    const key = `${DEMO_KEY}${basename(path)}`;
    try {
      const { studyId, faults } = await importStudy(db, path, packageReader(app), { key });
      if (studyId === null) log.error({ faults }, 'the demo study has faults');
      else studies.push(studyId);
    } catch (error) {
      // Without its demo the program is as useful as before.
      log.error(error, 'the demo study was not loaded');
    }
  }
  return studies;
}

/**
 * Freezes and publishes the reports that demo studies say they have, one after another; those that are
 * there already stay. Nobody waits for it.
 */
export async function publishDemo(app: App, studies: readonly string[]): Promise<void> {
  for (const studyId of studies) {
    try {
      await publishReports(app, studyId);
    } catch (error) {
      // A study that a person has deleted has no report any more.
      // The process may be ending: the next one makes it. The demo is as useful without it.
      if (!(error instanceof NotFoundError))
        app.log.warn(error, 'a report of the demo is made at the next start');
    }
  }
}

async function publishReports(app: App, studyId: string): Promise<void> {
  const { name, report } = await aboutStudy(app, studyId);
  for (const [at, until] of (report?.frozen ?? []).entries()) {
    const there = await listRevisions(app.db, studyId);
    const known = there.find((one) => one.number === at + 1);
    const number =
      known?.number ??
      (await writeStudy(app.db, studyId, null, (write) => addRevision(write, until)));
    if (known?.published_at) continue;
    // One that failed, or broke down when a process ended, is made again.
    if (known?.state === 'failed') await askAgain(app.db, studyId, number);
    await makeReport(app, { studyId, number }, false);
    await changeRevision(app, studyId, number, { publish: true, name }, null);
  }
}

import { basename } from 'node:path';
import { countStudies, hasImports } from '../data';
import { app } from './app';
import { importStudy } from './study/import';
import { readOnThread } from './study/read-package';

const KEY = 'demo/';

/**
 * Imports the demo studies into a database without any; the last one stands first in the list. One
 * that is missing because the process was killed between two comes at the next start; one that a
 * person has deleted does not come back.
 *
 * @param paths folders of their packages
 */
export async function loadDemo(paths: readonly string[]): Promise<void> {
  const { db, log } = app();
  if (paths.length === 0) return;
  if ((await countStudies(db)) > 0 && !(await hasImports(db, KEY))) return;
  for (const path of paths) {
    const key = `${KEY}${basename(path)}`;
    try {
      const { studyId, faults } = await importStudy(db, path, readOnThread, { key });
      if (studyId === null) log.error({ faults }, 'the demo study has faults');
    } catch (error) {
      // Without its demo the program is as useful as before.
      log.error(error, 'the demo study was not loaded');
    }
  }
}

import { createWriteStream } from 'node:fs';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import type { Settings, Study } from '../../core/model/study';
import { machineOf, NoMotionError, type ToolpathFacts } from '../../core/toolpath';
import type { PackageFiles } from '../packages';
import { withFolder } from '../temporary';
import { analyseFile } from './analyse';
import { SlicedFileError } from './open';
import { statedSettings } from './stated-settings';

/** What the sliced files of a package say, by path. */
export interface PackageToolpaths {
  /** What each states of its settings. */
  settings: ReadonlyMap<string, Settings>;
  /** What was read in each from end to end. */
  toolpaths: ReadonlyMap<string, ToolpathFacts>;
}

/**
 * Reads the sliced files that the prints and the plan of a study name, each against the machine of
 * the contender that it is named for first. A file that is not there is left out, one that cannot be
 * read too: it is told to `onUnreadable`.
 */
export async function packageToolpaths(
  study: Study,
  files: PackageFiles,
  onUnreadable: (path: string, why: string) => void,
): Promise<PackageToolpaths> {
  const there = new Set(files.paths);
  const contenders = new Map<string, string>();
  for (const { toolpath, contender_id } of [...study.tables.planned, ...study.tables.prints]) {
    if (toolpath !== null && there.has(toolpath) && !contenders.has(toolpath)) {
      contenders.set(toolpath, contender_id);
    }
  }
  const settings = new Map<string, Settings>();
  const toolpaths = new Map<string, ToolpathFacts>();
  await withFolder('sliced', async (folder) => {
    for (const [path, contender] of contenders) {
      const copy = join(folder, 'sliced');
      await pipeline(await files.stream(path), createWriteStream(copy));
      try {
        const facts = await analyseFile(copy, { machine: machineOf(contender, study.tables) });
        toolpaths.set(path, facts);
        settings.set(path, facts.settings);
      } catch (error) {
        if (error instanceof NoMotionError) settings.set(path, await statedSettings(copy));
        else if (!(error instanceof SlicedFileError)) throw error;
        onUnreadable(path, error.message.replace(/^[^:]*: /, ''));
      }
    }
  });
  return { settings, toolpaths };
}

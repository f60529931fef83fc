import { createWriteStream } from 'node:fs';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import type { Settings, Study } from '../../core/model/study';
import type { PackageFiles } from '../packages';
import { withFolder } from '../temporary';
import { SlicedFileError } from './open';
import { statedSettings } from './stated-settings';

/**
 * The settings that the sliced files of a package state, by path. A file that is not there is left
 * out, one that cannot be read too: it is told to `onUnreadable`.
 */
export async function packageSettings(
  study: Study,
  files: PackageFiles,
  onUnreadable: (path: string, why: string) => void,
): Promise<ReadonlyMap<string, Settings>> {
  const there = new Set(files.paths);
  const paths = new Set(
    [...study.tables.prints, ...study.tables.planned].flatMap((row) => row.toolpath ?? []),
  );
  const settings = new Map<string, Settings>();
  await withFolder('settings', async (folder) => {
    for (const path of paths) {
      if (!there.has(path)) continue;
      const copy = join(folder, 'sliced');
      await pipeline(await files.stream(path), createWriteStream(copy));
      try {
        settings.set(path, await statedSettings(copy));
      } catch (error) {
        if (!(error instanceof SlicedFileError)) throw error;
        onUnreadable(path, error.message.replace(/^[^:]*: /, ''));
      }
    }
  });
  return settings;
}

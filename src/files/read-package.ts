import { refused } from '../core/model/faults';
import { readPackage } from '../core/model/package';
import type { Settings } from '../core/model/study';
import { openPackage, PackageError, type PackageOutcome, type PackageTask } from './packages';
import { packageSettings } from './sliced';

/** Reads and checks a study package on disk, and what its sliced files state. */
export async function readPackageOnDisk({ path }: PackageTask): Promise<PackageOutcome> {
  try {
    const files = await openPackage(path);
    try {
      const result = await readPackage(files);
      // A file that cannot be read is told when its turn comes; the study is whole without it.
      const stated: ReadonlyMap<string, Settings> = result.content
        ? await packageSettings(result.content.study, files, () => undefined)
        : new Map();
      return { result, stated };
    } finally {
      await files.close();
    }
  } catch (error) {
    if (error instanceof PackageError) return refused(error.message);
    throw error;
  }
}

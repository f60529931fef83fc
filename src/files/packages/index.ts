import { stat } from 'node:fs/promises';
import { PackageError, type PackageFiles } from './files';
import { openFolder } from './folder';
import { openZip } from './zip';

export { PackageError, type PackageFiles } from './files';
/**
 * Opens a study package on disk, a folder or a zip.
 *
 * @throws PackageError where there is none
 */
export async function openPackage(path: string): Promise<PackageFiles> {
  const facts = await stat(path).catch(() => null);
  if (!facts) throw new PackageError(`there is no file or folder ${path}`);
  return facts.isDirectory() ? openFolder(path) : openZip(path);
}
export type { PackageOutcome, PackageTask } from './task';

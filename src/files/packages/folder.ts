import { createReadStream } from 'node:fs';
import { readdir, readFile, realpath, stat } from 'node:fs/promises';
import { join, relative, sep } from 'node:path';
import type { Fault } from '../../core/model/package';
import { PackageError, type PackageFiles } from './files';
import { isReadWhole, LIMITS, formatBytes } from './limits';

/** Opens a study package that lies in a folder. Names that begin with a dot are passed over. */
export async function openFolder(folder: string): Promise<PackageFiles> {
  const root = await realpath(folder);
  const paths: string[] = [];
  const sizes = new Map<string, number>();
  const faults: Fault[] = [];
  const leaving = new Set<string>();
  const fault = (file: string, message: string) =>
    faults.push({ file, line: 1, column: '-', message });
  const walk = async (directory: string): Promise<void> => {
    const entries = await readdir(join(root, directory), { withFileTypes: true });
    for (const entry of entries.sort((a, b) => (a.name < b.name ? -1 : 1))) {
      if (entry.name.startsWith('.')) continue;
      const path = directory === '' ? entry.name : `${directory}/${entry.name}`;
      const full = join(root, path);
      const target = entry.isSymbolicLink() ? await realpath(full).catch(() => null) : full;
      if (target === null || relative(root, target).split(sep)[0] === '..') {
        leaving.add(path);
        fault(path, 'is a link that leads outside the package');
        continue;
      }
      const facts = await stat(full);
      if (facts.isDirectory()) {
        if (entry.isSymbolicLink())
          fault(path, 'is a link to a folder: put the files here instead');
        else await walk(path);
      } else if (!facts.isFile()) fault(path, 'is neither a file nor a folder');
      else if (isReadWhole(path) && facts.size > LIMITS.tableBytes) {
        fault(
          path,
          `is ${formatBytes(facts.size)} long; at most ${formatBytes(LIMITS.tableBytes)}`,
        );
      } else {
        paths.push(path);
        sizes.set(path, facts.size);
      }
      if (paths.length > LIMITS.files) {
        throw new PackageError(`the folder holds more than ${LIMITS.files} files`);
      }
    }
  };
  await walk('');
  return {
    paths,
    faults,
    leaving,
    sizeOf: (path) => sizes.get(path) ?? 0,
    read: (path) => readFile(join(root, path)),
    stream: (path) => Promise.resolve(createReadStream(join(root, path))),
    close: () => Promise.resolve(),
  };
}

import type { Fault } from './fault';

/** The files of a package, wherever they lie: a folder, a zip, memory. */
export interface PackageSource {
  /** Every file's path, relative to the folder that holds `datapackage.json`, with `/`. */
  paths: readonly string[];
  /** The bytes of a file in `paths`. */
  read(path: string): Promise<Uint8Array>;
  /** What was wrong with the container itself: links that lead out, entries that lie. */
  faults: readonly Fault[];
  /** Paths of links and entries that lead out of the package: what names them is at fault too. */
  leaving: ReadonlySet<string>;
}

/** A package that lies in memory. */
export function memorySource(files: ReadonlyMap<string, Uint8Array>): PackageSource {
  return {
    paths: [...files.keys()],
    faults: [],
    leaving: new Set(),
    read: (path) => {
      const bytes = files.get(path);
      if (!bytes) return Promise.reject(new Error(`no file ${path} in the package`));
      return Promise.resolve(bytes);
    },
  };
}

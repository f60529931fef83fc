import { zipSync, type Zippable } from 'fflate';

/** Files as a zip, perhaps within a folder. */
export function zipped(files: ReadonlyMap<string, Uint8Array>, folder = ''): Uint8Array {
  const entries: Zippable = {};
  for (const [path, bytes] of files) entries[folder + path] = new Uint8Array(bytes);
  // In haste: what is sent to a server on the same machine need not be small.
  return zipSync(entries, { level: 1 });
}

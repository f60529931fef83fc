import { unzipSync, zipSync } from 'fflate';

/** The file that says in a folder of a report that it was withdrawn. */
export const WITHDRAWN_FILE = 'WITHDRAWN.txt';

/** A report's zip with a file in front that says it was withdrawn; all else in it is as it was frozen. */
export function markWithdrawn(zip: Uint8Array, words: string): Uint8Array {
  const files = unzipSync(zip);
  const note = new TextEncoder().encode(`${words}\n`);
  // Its parts are packed already where that makes them smaller.
  return zipSync({ [WITHDRAWN_FILE]: note, ...files }, { level: 0 });
}

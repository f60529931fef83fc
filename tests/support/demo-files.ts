import { readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';

/** The demo study's folder. */
export const DEMO = join(process.cwd(), 'demo', 'clip-bench');

/** The demo studies that every browser test has, in the order in which they are imported. */
export const DEMO_STUDIES = [DEMO, join(process.cwd(), 'demo', 'gannet-update')];

/** The demo study that sweeps a speed. */
export const DEMO_SWEEP = join(process.cwd(), 'demo', 'gannet-speeds');

/** Those that most tests have beneath them: the same for all of them, so that they are read in once. */
export const DEMO_PAIR = [DEMO, DEMO_SWEEP];

/** The lasting id of the demo's stair block. */
export const STAIR_BLOCK = '019a00a1-e000-7347-80dd-9cd0e7651750';

/** The files of a demo study, in memory. */
export const demoFiles = (folder = DEMO): Map<string, Uint8Array> =>
  new Map(
    readdirSync(folder, { recursive: true, withFileTypes: true })
      .filter((entry) => entry.isFile())
      .map((entry) => {
        const path = join(entry.parentPath, entry.name);
        return [relative(folder, path).replaceAll('\\', '/'), readFileSync(path)];
      }),
  );

/** The demo study's files with some changed: text for new content, null for taken out. */
export function changedDemo(
  change: Record<string, ((text: string) => string) | null>,
): Map<string, Uint8Array> {
  const files = demoFiles();
  for (const [name, edit] of Object.entries(change)) {
    const bytes = files.get(name);
    if (edit === null) files.delete(name);
    else files.set(name, new TextEncoder().encode(edit(new TextDecoder().decode(bytes))));
  }
  return files;
}

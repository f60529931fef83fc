import { readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';

/** The demo study's folder. */
export const DEMO = join(process.cwd(), 'demo', 'clip-bench');

/** The demo studies' folders, in the order in which they are imported: its photos wait in that order. */
export const DEMO_STUDIES = ['gannet-update', 'clip-bench', 'gannet-speeds'].map((name) =>
  join(process.cwd(), 'demo', name),
);

/** The files of the demo study, in memory. */
export const demoFiles = (): Map<string, Uint8Array> =>
  new Map(
    readdirSync(DEMO, { recursive: true, withFileTypes: true })
      .filter((entry) => entry.isFile())
      .map((entry) => {
        const path = join(entry.parentPath, entry.name);
        return [relative(DEMO, path).replaceAll('\\', '/'), readFileSync(path)];
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

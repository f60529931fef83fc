import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ROOT } from './project.mjs';
import { must } from './run.mjs';

const SOURCE = join('src', 'core', 'toolpath', 'hot', 'assembly', 'index.ts');

/** Where what was compiled lies, as a module. */
export const HOT_CODE = join(ROOT, 'src', 'core', 'toolpath', 'hot', 'code.ts');

/** Compiles the loop that reads sliced files; returns the module that holds its code. */
export async function compileHot() {
  const folder = mkdtempSync(join(tmpdir(), 'vergleich-hot-'));
  const to = join(folder, 'hot.wasm');
  try {
    await must(
      join(ROOT, 'node_modules', '.bin', 'asc'),
      [SOURCE, '-o', to, '-O3', '--noAssert', '--uncheckedBehavior', 'always'].concat([
        ...['--runtime', 'stub', '--use', 'abort='],
      ]),
      { cwd: ROOT },
    );
    const lines =
      readFileSync(to)
        .toString('base64')
        .match(/.{1,100}/g) ?? [];
    return `// Compiled from the sources in \`assembly/\` by \`npm run build:hot\`; a test says where it is not of them.\nexport const CODE =\n${lines.map((line) => `  '${line}'`).join(' +\n')};\n`;
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

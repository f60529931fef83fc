import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ROOT } from './project.mjs';
import { must } from './run.mjs';

/** The loops that are compiled: of the reader of sliced files, and of the filters of pictures. */
export const HOT_LOOPS = {
  toolpath: { folder: join('src', 'core', 'toolpath', 'hot'), options: [] },
  image: { folder: join('src', 'core', 'measures', 'image', 'hot'), options: ['--enable', 'simd'] },
};

/** Where what was compiled lies, as a module. */
export const codeOf = (loop) => join(ROOT, HOT_LOOPS[loop].folder, 'code.ts');

/** Compiles a loop; returns the module that holds its code. */
export async function compileHot(loop) {
  const { folder, options } = HOT_LOOPS[loop];
  const temporary = mkdtempSync(join(tmpdir(), 'vergleich-hot-'));
  const to = join(temporary, 'hot.wasm');
  try {
    await must(
      join(ROOT, 'node_modules', '.bin', 'asc'),
      [
        join(folder, 'assembly', 'index.ts'),
        '-o',
        to,
        '-O3',
        '--noAssert',
        '--uncheckedBehavior',
        'always',
      ].concat(['--runtime', 'stub', '--use', 'abort=', ...options]),
      { cwd: ROOT },
    );
    const lines =
      readFileSync(to)
        .toString('base64')
        .match(/.{1,100}/g) ?? [];
    return (
      '// Compiled from the sources in `assembly/` by `npm run build:hot`; a test says where ' +
      'it is not of them.\nexport const CODE =\n' +
      `${lines.map((line) => `  '${line}'`).join(' +\n')};\n`
    );
  } finally {
    rmSync(temporary, { recursive: true, force: true });
  }
}

import { join } from 'node:path';
import { end } from './lib/lifetime.mjs';
import { ensurePackages, ROOT } from './lib/project.mjs';
import { run } from './lib/run.mjs';

// Simulated machines for the bench link; the options are those of `npm run simulate -- --help`.
await ensurePackages();
const { build } = await import('esbuild');
const outfile = join(ROOT, 'dist', 'simulator', 'main.js');
await build({
  absWorkingDir: ROOT,
  entryPoints: ['simulator/main.ts'],
  outfile,
  bundle: true,
  platform: 'node',
  format: 'esm',
  packages: 'external',
});
const { code } = await run(process.execPath, [outfile, ...process.argv.slice(2)], { cwd: ROOT });
await end(code);

import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { ensurePackages, ROOT } from './lib/project.mjs';

// Makes the demo studies anew; they are the same each time, their draws being seeded.
await ensurePackages();
const { build } = await import('esbuild');
const outfile = join(ROOT, 'dist', 'demo', 'main.js');
await build({
  absWorkingDir: ROOT,
  entryPoints: ['demo/generator/main.ts'],
  outfile,
  bundle: true,
  platform: 'node',
  format: 'esm',
  packages: 'external',
});
const { writeDemo } = await import(pathToFileURL(outfile).href);
await writeDemo(join(ROOT, 'demo'));

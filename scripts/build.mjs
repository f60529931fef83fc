import { mkdirSync, rmSync, symlinkSync } from 'node:fs';
import { join } from 'node:path';
import { build } from 'esbuild';
import { ROOT } from './lib/project.mjs';
import { must } from './lib/run.mjs';

const isOnlyCommand = process.argv.includes('--cli');

const entries = {
  'cli/main': 'src/cli/main.ts',
  ...(!isOnlyCommand && {
    'processes/web': 'src/processes/web.ts',
    'threads/evaluate': 'src/threads/evaluate.ts',
    'threads/mesh': 'src/threads/mesh.ts',
    'threads/package': 'src/threads/package.ts',
    'threads/toolpath': 'src/threads/toolpath.ts',
  }),
};

await build({
  absWorkingDir: ROOT,
  entryPoints: entries,
  outdir: 'dist',
  bundle: true,
  splitting: true,
  chunkNames: 'chunks/[name]-[hash]',
  platform: 'node',
  format: 'esm',
  target: 'node20',
  packages: 'external',
  sourcemap: true,
  logLevel: 'warning',
});

// So that `npx vergleich` finds the command here without asking a registry.
const command = join(ROOT, 'node_modules', '.bin', 'vergleich');
mkdirSync(join(ROOT, 'node_modules', '.bin'), { recursive: true });
rmSync(command, { force: true });
symlinkSync(join('..', '..', 'bin', 'vergleich.mjs'), command);

if (!isOnlyCommand) {
  rmSync(join(ROOT, 'dist', 'web'), { recursive: true, force: true });
  await must('npx', ['--no-install', 'astro', 'build'], {
    cwd: ROOT,
    env: { ...process.env, ASTRO_TELEMETRY_DISABLED: '1' },
  });
}

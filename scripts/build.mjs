import { mkdirSync, rmSync, symlinkSync } from 'node:fs';
import { join } from 'node:path';
import { build } from 'esbuild';
import { ROOT } from './lib/project.mjs';
import { must } from './lib/run.mjs';

const isOnlyCommand = process.argv.includes('--cli');

// What an earlier build left is nobody's any more.
if (!isOnlyCommand) rmSync(join(ROOT, 'dist'), { recursive: true, force: true });

const shared = {
  absWorkingDir: ROOT,
  outdir: 'dist',
  bundle: true,
  splitting: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  sourcemap: true,
  logLevel: 'warning',
};

// What starts often is packed with all it needs: looking up hundreds of small files takes longer
// than running them. The database's packages stay outside, and are loaded by the commands that need it.
await build({
  ...shared,
  entryPoints: {
    'cli/main': 'src/cli/main.ts',
    ...(!isOnlyCommand && {
      'processes/web': 'src/processes/web.ts',
      'processes/worker': 'src/processes/worker.ts',
      'threads/evaluate': 'src/threads/evaluate.ts',
      'threads/mesh': 'src/threads/mesh.ts',
      'threads/package': 'src/threads/package.ts',
      'threads/photo': 'src/threads/photo.ts',
      'threads/report': 'src/threads/report.ts',
      'threads/toolpath': 'src/threads/toolpath.ts',
    }),
  },
  chunkNames: 'packed/[name]-[hash]',
  external: [
    ...['sequelize', 'pg', 'umzug', 'pg-boss', 'piscina', 'pino', 'mqtt', 'aedes'],
    ...['sharp', 'zxing-wasm', 'playwright-core', 'selfsigned'],
  ],
  banner: {
    js: "import { createRequire as makeRequire } from 'node:module';\nconst require = makeRequire(import.meta.url);",
  },
});

// What a published report carries with it: it runs in its readers' browsers, from their disks.
await build({
  ...shared,
  entryPoints: { 'report/report': 'src/forms/reader.ts' },
  splitting: false,
  platform: 'browser',
  format: 'iife',
  target: 'es2020',
  sourcemap: false,
  minify: true,
});
await build({
  absWorkingDir: ROOT,
  entryPoints: { 'report/report': 'src/forms/page/report.css' },
  outdir: 'dist',
  bundle: true,
  external: ['fonts/*'],
  logLevel: 'warning',
});

// So that `npx vergleich` finds the command here without asking a registry.
const command = join(ROOT, 'node_modules', '.bin', 'vergleich');
mkdirSync(join(ROOT, 'node_modules', '.bin'), { recursive: true });
rmSync(command, { force: true });
symlinkSync(join('..', '..', 'bin', 'vergleich.mjs'), command);

if (!isOnlyCommand) {
  await must('npx', ['--no-install', 'astro', 'build'], {
    cwd: ROOT,
    env: { ...process.env, ASTRO_TELEMETRY_DISABLED: '1' },
  });
}

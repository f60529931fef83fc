import { mkdirSync, rmSync, symlinkSync } from 'node:fs';
import { join } from 'node:path';
import { build } from 'esbuild';
import { ROOT } from './lib/project.mjs';
import { must } from './lib/run.mjs';

const isOnlyCommand = process.argv.includes('--cli');

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
      'threads/evaluate': 'src/threads/evaluate.ts',
      'threads/mesh': 'src/threads/mesh.ts',
      'threads/package': 'src/threads/package.ts',
      'threads/photo': 'src/threads/photo.ts',
      'threads/toolpath': 'src/threads/toolpath.ts',
    }),
  },
  chunkNames: 'packed/[name]-[hash]',
  external: [
    ...['sequelize', 'pg', 'umzug', 'pg-boss', 'piscina', 'pino', 'mqtt', 'aedes'],
    ...['sharp', 'zxing-wasm'],
  ],
  banner: {
    js: "import { createRequire as makeRequire } from 'node:module';\nconst require = makeRequire(import.meta.url);",
  },
});

if (!isOnlyCommand) {
  await build({
    ...shared,
    entryPoints: { 'processes/web': 'src/processes/web.ts' },
    chunkNames: 'chunks/[name]-[hash]',
    packages: 'external',
  });
}

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

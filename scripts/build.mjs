import { mkdirSync, rmSync, symlinkSync } from 'node:fs';
import { join } from 'node:path';
import { build } from 'esbuild';
import { command, databasePackages, processes, shared } from './lib/bundles.mjs';
import { keepCompiled } from './lib/compiled.mjs';
import { ROOT } from './lib/project.mjs';
import { writeNotices } from './lib/notices.mjs';
import { must } from './lib/run.mjs';

const isOnlyCommand = process.argv.includes('--cli');

// What an earlier build left is nobody's any more.
if (!isOnlyCommand) rmSync(join(ROOT, 'dist'), { recursive: true, force: true });

await Promise.all([build(command), build(databasePackages), !isOnlyCommand && build(processes)]);
keepCompiled(join(ROOT, databasePackages.outfile));

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
const link = join(ROOT, 'node_modules', '.bin', 'vergleich');
mkdirSync(join(ROOT, 'node_modules', '.bin'), { recursive: true });
rmSync(link, { force: true });
symlinkSync(join('..', '..', 'bin', 'vergleich.mjs'), link);

if (!isOnlyCommand) {
  await must('npx', ['--no-install', 'astro', 'build'], {
    cwd: ROOT,
    env: { ...process.env, ASTRO_TELEMETRY_DISABLED: '1' },
  });
  // What others have made that runs in it, with its licences: linked from every page's help.
  writeNotices(join(ROOT, 'dist', 'web', 'client', 'third-party-notices.txt'));
}

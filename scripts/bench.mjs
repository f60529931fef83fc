import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { end, track } from './lib/lifetime.mjs';
import { ensureNeeds } from './lib/needs.mjs';
import { startCluster } from './lib/postgres.mjs';
import { ensureBuilt, ensurePackages, ROOT } from './lib/project.mjs';

// Measures what the product promises, and prints a table. Figures are of this machine.
process.chdir(ROOT);
await ensureNeeds({ postgres: true });
await ensurePackages();
await ensureBuilt();
const { build } = await import('esbuild');
const outfile = join(ROOT, 'dist', 'bench', 'main.js');
await build({
  absWorkingDir: ROOT,
  entryPoints: ['bench/main.ts'],
  outfile,
  bundle: true,
  platform: 'node',
  format: 'esm',
  packages: 'external',
  logLevel: 'warning',
});
const bench = await import(pathToFileURL(outfile).href);
// `npm run bench -- farm` measures only the pages of a farm.
const isFarmOnly = process.argv.includes('farm');
const lines = isFarmOnly ? [] : [...bench.benchToolpath(), ...(await bench.benchCore())];
const cluster = await startCluster('bench');
try {
  const databaseUrl = await cluster.createDatabase(`bench_${Date.now()}`);
  const farm = await bench.fillFarm(databaseUrl);
  const studyId = isFarmOnly ? null : await bench.fillDatabase(databaseUrl);
  if (studyId) lines.push(...(await bench.benchDatabase(databaseUrl, studyId)));
  const child = track(
    spawn(process.execPath, [join('dist', 'processes', 'web.js')], {
      stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
      detached: true,
      env: {
        ...process.env,
        NODE_ENV: 'production',
        ASTRO_NODE_AUTOSTART: 'disabled',
        DATABASE_URL: databaseUrl,
        PORT: '0',
        MQTT_PORT: '0',
      },
    }),
  );
  const { port } = await new Promise((resolve) => child.once('message', resolve));
  const base = `http://127.0.0.1:${port}`;
  if (studyId) lines.push(...(await bench.benchServer(base, studyId)));
  lines.push(...(await bench.benchFarm(base, farm)));
  child.kill('SIGTERM');
  await new Promise((resolve) => child.once('exit', resolve));
} finally {
  await cluster.stop();
}
const width = Math.max(...lines.map((line) => line.what.length));
for (const { what, figure, bar, isMet } of lines) {
  const verdict = bar === '' ? '' : isMet ? 'met' : 'NOT MET';
  process.stdout.write(
    `${what.padEnd(width)}  ${figure.padStart(10)}  ${bar.padEnd(10)}  ${verdict}\n`,
  );
}
await end(0);

import { delimiter, join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { end } from './lib/lifetime.mjs';
import { ensureNeeds, findChromium } from './lib/needs.mjs';
import { startCluster } from './lib/postgres.mjs';
import { serveQuietly } from './lib/server.mjs';
import { DEMO_STUDIES, ensureBuilt, ensurePackages, ROOT } from './lib/project.mjs';

// Measures what the product promises, and prints a table. Figures are of this machine.
process.chdir(ROOT);
await ensureNeeds({ postgres: true, chromium: true });
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
// `npm run bench -- files farm` measures only these parts; 200 kills only where they are asked for, as they take long.
const PARTS = ['files', 'look', 'core', 'pages', 'farm', 'photos', 'report', 'kills'];
const asked = process.argv.slice(2);
const unknown = asked.filter((part) => !PARTS.includes(part));
if (unknown.length > 0) {
  process.stderr.write(`There is no part ${unknown.join(', ')}: there are ${PARTS.join(', ')}.\n`);
  await end(2);
}
const wants = (part) => (asked.length === 0 ? part !== 'kills' : asked.includes(part));
const lines = [];
if (wants('files')) lines.push(...bench.benchCommand(), ...bench.benchToolpath());
if (wants('core')) lines.push(...(await bench.benchCore()));
const cluster = await startCluster('bench');
try {
  if (wants('pages') || wants('farm') || wants('photos') || wants('look')) {
    const databaseUrl = await cluster.createDatabase(`bench_${Date.now()}`);
    const farm = wants('farm') ? await bench.fillFarm(databaseUrl) : null;
    const studyId = wants('pages') ? await bench.fillDatabase(databaseUrl) : null;
    if (studyId) lines.push(...(await bench.benchDatabase(databaseUrl, studyId)));
    const { base, stop } = await serveQuietly(databaseUrl);
    if (studyId) lines.push(...(await bench.benchServer(base, studyId)));
    if (farm) lines.push(...(await bench.benchFarm(base, farm)));
    if (wants('look')) lines.push(...(await bench.benchFirstLook(base, findChromium())));
    if (wants('photos')) lines.push(...(await bench.benchPhotos(base, findChromium())));
    await stop();
  }
  if (wants('kills')) {
    const own = await cluster.createDatabase(`bench_kills_${Date.now()}`);
    lines.push(...(await bench.benchKills(own, cluster.crash)));
  }
  if (wants('report')) {
    const own = await cluster.createDatabase(`bench_report_${Date.now()}`);
    const demo = await serveQuietly(own, { DEMO_STUDY: DEMO_STUDIES.join(delimiter) });
    lines.push(...(await bench.benchReport(demo.base)));
    await demo.stop();
  }
} finally {
  await cluster.stop();
}
const width = Math.max(...lines.map((line) => line.what.length));
for (const { what, figure, ratio, bar, isMet } of lines) {
  const verdict = bar === '' ? '' : isMet ? 'met' : 'NOT MET';
  const times = ratio === undefined ? '' : `${ratio} ×`;
  process.stdout.write(
    `${what.padEnd(width)}  ${figure.padStart(10)}  ${times.padStart(8)}  ${bar.padEnd(17)}  ${verdict}\n`,
  );
}
await end(0);

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
// `npm run bench -- farm` measures only the pages of a farm, `-- photos` only photos side by side,
// `-- report` only the demo's report, `-- kills` kills what runs 200 times and looks whether anything is lost.
const isFarmOnly = process.argv.includes('farm');
const isPhotosOnly = process.argv.includes('photos');
const isReportOnly = process.argv.includes('report');
const isKillsOnly = process.argv.includes('kills');
const isAll = !isFarmOnly && !isPhotosOnly && !isReportOnly && !isKillsOnly;
const lines = !isAll ? [] : [...bench.benchToolpath(), ...(await bench.benchCore())];
const cluster = await startCluster('bench');
try {
  const databaseUrl = await cluster.createDatabase(`bench_${Date.now()}`);
  const farm =
    isPhotosOnly || isReportOnly || isKillsOnly ? null : await bench.fillFarm(databaseUrl);
  const studyId = isAll ? await bench.fillDatabase(databaseUrl) : null;
  if (studyId) lines.push(...(await bench.benchDatabase(databaseUrl, studyId)));
  const { base, stop } = await serveQuietly(databaseUrl);
  if (studyId) lines.push(...(await bench.benchServer(base, studyId)));
  if (farm) lines.push(...(await bench.benchFarm(base, farm)));
  if (isAll || isPhotosOnly) lines.push(...(await bench.benchPhotos(base, findChromium())));
  await stop();
  if (isKillsOnly) {
    const own = await cluster.createDatabase(`bench_kills_${Date.now()}`);
    lines.push(...(await bench.benchKills(own, cluster.crash)));
  }
  if (isAll || isReportOnly) {
    const own = await cluster.createDatabase(`bench_report_${Date.now()}`);
    const demo = await serveQuietly(own, { DEMO_STUDY: DEMO_STUDIES.join(delimiter) });
    lines.push(...(await bench.benchReport(demo.base)));
    await demo.stop();
  }
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

import { mkdirSync } from 'node:fs';
import { delimiter, join } from 'node:path';
import { end } from './lib/lifetime.mjs';
import { ensureNeeds, findChromium } from './lib/needs.mjs';
import { startCluster } from './lib/postgres.mjs';
import { serveQuietly } from './lib/server.mjs';
import { DEMO_STUDIES, ensureBuilt, ensurePackages, ROOT } from './lib/project.mjs';

// Takes a picture of every main view, from the demo data, into docs/screenshots.
process.chdir(ROOT);
await ensureNeeds({ postgres: true, chromium: true });
await ensurePackages();
await ensureBuilt();
const { chromium } = await import('@playwright/test');
const executablePath = findChromium();
const folder = join(ROOT, 'docs', 'screenshots');
mkdirSync(folder, { recursive: true });

const VIEWS = [
  { name: 'line-up', path: '/line-up' },
  { name: 'runs', path: '/runs' },
  { name: 'measure', path: '/measure', keys: ['2', '0', '.', '0', '6'] },
  { name: 'ladders', path: '/measure/ladders' },
  { name: 'measure-phone', path: '/measure', width: 390, height: 844 },
  { name: 'results-accuracy', path: '/results/accuracy' },
  { name: 'inspect', path: '/inspect?specimen=K7-048', operator: 'KM', keys: ['s', 'e'] },
  {
    name: 'side-by-side',
    path: '/inspect/side-by-side#of=echo-wall%2Ffront%2Fraking-left&x=-46&y=14&px=17',
    keys: ['k'],
    height: 900,
  },
  {
    name: 'photos',
    path: '/inspect/photos',
    click: 'button:has-text("K7-048 · front")',
    height: 900,
  },
  { name: 'results-surface', path: '/results/surface', height: 1000 },
  { name: 'results-speed', path: '/results/speed' },
  { name: 'results-reliability', path: '/results/reliability' },
  { name: 'evidence', path: '/results/accuracy', click: '[data-figure="accuracy/A-stock"]' },
  { name: 'plan', path: '/plan' },
  { name: 'sliced-file', path: '/files/sliced/echo-wall-B-stock.gcode.gz', height: 1100 },
  { name: 'results-cost', path: '/results/cost' },
  { name: 'results-limits', path: '/results/limits' },
  { name: 'machine', path: '/machines/gannet' },
  { name: 'artefact', path: '/artefacts/stair-block' },
];

const cluster = await startCluster('screenshots', { forTests: true });
try {
  const databaseUrl = await cluster.createDatabase(`pictures_${Date.now()}`);
  const { base, stop } = await serveQuietly(databaseUrl, {
    DEMO_STUDY: DEMO_STUDIES.join(delimiter),
  });
  const get = async (path) => (await fetch(`${base}/api/v1/studies${path}`)).json();
  const { study_id: study } = (await get('')).find(({ name }) => name === 'clip-bench');
  // The pictures show the sliced files read, and the photos laid flat.
  for (let isReading = true; isReading;) {
    await new Promise((resolve) => setTimeout(resolve, 500));
    const files = await get(`/${study}/sliced-files`);
    const photos = await get(`/${study}/photos`);
    isReading =
      files.some((file) => file.state === 'waiting' || file.state === 'reading') ||
      photos.some((photo) => !photo.isLaid);
  }
  const browser = await chromium.launch({
    executablePath,
    args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking', '--no-first-run'],
  });
  for (const {
    name,
    path,
    width = 1280,
    height = 800,
    colorScheme = 'light',
    click,
    keys,
    operator,
  } of VIEWS) {
    const page = await browser.newPage({ viewport: { width, height }, colorScheme });
    if (operator) {
      await page.addInitScript(
        (name) => localStorage.setItem('vergleich.operator', name),
        operator,
      );
    }
    await page.goto(path === '' ? base : `${base}/studies/${study}${path}`);
    await page.waitForLoadState('networkidle');
    if (click) {
      await page.click(click);
      await page.waitForLoadState('networkidle');
      await page.getByText('Looking it up').waitFor({ state: 'hidden' });
    }
    for (const key of keys ?? []) await page.keyboard.press(key, { delay: 80 });
    await page.waitForTimeout(300);
    await page.waitForLoadState('networkidle');
    await page.screenshot({ path: join(folder, `${name}.png`) });
    await page.close();
  }
  await browser.close();
  await stop();
} finally {
  await cluster.stop();
}
await end(0);

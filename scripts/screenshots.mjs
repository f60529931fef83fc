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
  { name: 'glance', path: '/results/glance', height: 1000 },
  { name: 'scorecard', path: '/results/scorecard', height: 1100, wait: '[data-took]' },
  { name: 'machine-or-profile', path: '/results/machine-or-profile', height: 900 },
  { name: 'head-to-head', path: '/results/head-to-head?of=A-tuned&with=B-tuned', height: 1000 },
  { name: 'sweep', study: 'gannet-speeds', path: '/results/sweep', height: 1000 },
  { name: 'line-up', path: '/line-up' },
  { name: 'runs', path: '/runs' },
  { name: 'measure', path: '/measure', keys: ['2', '0', '.', '0', '6'] },
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
  { name: 'results-reliability', path: '/results/reliability' },
  { name: 'plan', path: '/plan' },
  { name: 'sliced-file', path: '/files/sliced/echo-wall-B-stock.gcode.gz', height: 1100 },
  { name: 'results-cost', path: '/results/cost' },
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
  const studies = await get('');
  const idOf = (wanted) => studies.find(({ name }) => name === wanted).study_id;
  const study = idOf('clip-bench');
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
    wait,
    study: other,
  } of VIEWS) {
    const page = await browser.newPage({ viewport: { width, height }, colorScheme });
    if (operator) {
      await page.addInitScript(
        (name) => localStorage.setItem('vergleich.operator', name),
        operator,
      );
    }
    await page.goto(`${base}/studies/${other ? idOf(other) : study}${path}`);
    await page.waitForLoadState('networkidle');
    if (click) {
      await page.click(click);
      await page.waitForLoadState('networkidle');
      await page.getByText('Looking it up').waitFor({ state: 'hidden' });
    }
    if (wait) await page.waitForSelector(wait);
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

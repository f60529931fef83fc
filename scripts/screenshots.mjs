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
  { name: 'desk', address: '/', wait: 'text=It comes first in' },
  { name: 'glance', path: '/results/glance', height: 1000 },
  { name: 'scorecard', path: '/results/scorecard', height: 1100, wait: '[data-took]' },
  { name: 'head-to-head', path: '/results/head-to-head?of=A-tuned&with=B-tuned', height: 1000 },
  { name: 'panels', path: '/results/panels', height: 1000 },
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
  { name: 'results-surface', path: '/results/surface', height: 1000 },
  { name: 'plan', path: '/plan' },
  { name: 'sliced-file', path: '/files/sliced/echo-wall-B-stock.gcode.gz', height: 1100 },
  { name: 'report', path: '/report', height: 1000 },
  { name: 'published-report', address: '/r/clip-bench', height: 1500 },
  { name: 'machine', thing: ['machine', 'Gannet X24', '/machines'], height: 1000 },
  { name: 'standings', thing: ['artefact', 'Stair block', '/artefacts'], height: 800 },
];

/** What a judge of a blind panel sees on a phone, in a panel that is opened for it. */
async function takeJudge(browser, base, study, get) {
  const photos = (await get(`/${study}/photos`)).filter(
    ({ filed, path }) =>
      filed?.light === 'raking-left' && filed.view === 'front' && path.includes('K7-0'),
  );
  const panel_id = 'for-the-picture';
  const at = `${base}/api/v1/studies/${study}/panels`;
  const send = async (address, content) => {
    const answer = await fetch(address, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(content),
    });
    if (!answer.ok) throw new Error(await answer.text());
  };
  await send(at, {
    panel_id,
    kind: 'paired',
    aspect: 'On which one is the wall smoother?',
    target: null,
    artefact_id: 'echo-wall',
    shown_as: 'photos',
    names: 'numbers',
    view: 'front',
    light: 'raking-left',
    levels: 'as-taken',
    x_mm: -56,
    y_mm: 6,
    w_mm: 40,
    h_mm: 50,
    judges: 2,
    questions: 10,
    effect: null,
    closes_at: null,
    items: photos.map(({ path, filed }) => ({ specimen_id: filed.specimen_id, path })),
  });
  await send(`${at}/${panel_id}`, { do: 'open' });
  const { link } = await get(`/${study}/panels/${panel_id}`);
  const page = await browser.newPage({ viewport: { width: 390, height: 760 } });
  await page.goto(base + link);
  await page.getByRole('button', { name: 'Begin' }).click();
  for (const question of [1, 2, 3]) {
    await page.getByText(`${question} of 10`).waitFor();
    await page.waitForTimeout(300);
    await page.keyboard.press('1', { delay: 80 });
  }
  await page.getByText('4 of 10').waitFor();
  await page.waitForLoadState('networkidle');
  await page.screenshot({ path: join(folder, 'judge.png') });
  await page.close();
}

const cluster = await startCluster('screenshots', { forTests: true });
try {
  const databaseUrl = await cluster.createDatabase(`pictures_${Date.now()}`);
  const { base, stop } = await serveQuietly(databaseUrl, {
    DEMO_STUDY: DEMO_STUDIES.join(delimiter),
    DEMO_REPORTS: '1',
  });
  const get = async (path) => (await fetch(`${base}/api/v1/studies${path}`)).json();
  const studies = await get('');
  const idOf = (wanted) => studies.find(({ name }) => name === wanted).study_id;
  const study = idOf('clip-bench');
  const thingAt = async (kind, called, page) => {
    const things = await (await fetch(`${base}/api/v1/things?kind=${kind}`)).json();
    return `${page}/${things.find(({ name }) => name === called).uid}`;
  };
  // The pictures show the sliced files read, and the photos laid flat.
  for (let isReading = true; isReading;) {
    await new Promise((resolve) => setTimeout(resolve, 500));
    const files = await get(`/${study}/sliced-files`);
    const photos = await get(`/${study}/photos`);
    const revisions = await get(`/${study}/report/revisions`);
    isReading =
      files.some((file) => file.state === 'waiting' || file.state === 'reading') ||
      photos.some((photo) => !photo.isRectified) ||
      revisions.filter((one) => one.published_at !== null).length < 2;
  }
  const browser = await chromium.launch({
    executablePath,
    args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking', '--no-first-run'],
  });
  for (const {
    name,
    path,
    address,
    width = 1280,
    height = 800,
    colorScheme = 'light',
    click,
    keys,
    operator,
    wait,
    study: other,
    thing,
  } of VIEWS) {
    const page = await browser.newPage({ viewport: { width, height }, colorScheme });
    if (operator) {
      await page.addInitScript(
        (name) => localStorage.setItem('vergleich.operator', name),
        operator,
      );
    }
    const own = `/studies/${other ? idOf(other) : study}${path}`;
    await page.goto(base + (thing ? await thingAt(...thing) : (address ?? own)));
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
  await takeJudge(browser, base, study, get);
  await browser.close();
  await stop();
} finally {
  await cluster.stop();
}
await end(0);

import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { changedDemo, DEMO } from '../support/demo-files';
import { zipped } from '../support/zip';
import { expect, expectAccessible, open, settled, test } from './bench';

test('a package with faults lists them all, and nothing is imported', async ({ page, bench }) => {
  await open(page, `${bench.url}/studies`);
  const studies = await page
    .getByRole('link', { name: 'Four machines for the clip bench' })
    .count();
  await page.getByRole('button', { name: 'Import study' }).click();
  const bytes = zipped(
    changedDemo({
      'noise.csv': (text) => text.replace('idle', 'asleep'),
      'claims.csv': (text) => text.replace('auklet', 'nobody'),
    }),
  );
  await page.getByLabel('Choose a zip').setInputFiles({
    name: 'study.zip',
    mimeType: 'application/zip',
    buffer: Buffer.from(bytes),
  });
  await expect(page.getByText('2 faults in the package; nothing was imported.')).toBeVisible();
  await expect(page.getByRole('row', { name: /claims\.csv 4 machine_id/ })).toContainText(
    'is not among the machines',
  );
  await expect(page.getByRole('row', { name: /noise\.csv 2 state/ })).toContainText('asleep');
  await open(page, `${bench.url}/studies`);
  await expect(page.getByRole('link', { name: 'Four machines for the clip bench' })).toHaveCount(
    studies,
  );
});

test('a folder is imported, and what is exported evaluates the same', async ({
  page,
  bench,
}, info) => {
  await open(page, `${bench.url}/studies`);
  await page.getByRole('button', { name: 'Import study' }).click();
  await page.getByLabel('Choose a folder').setInputFiles(DEMO);
  // The page names the study of the same package before it opens the new one.
  await page.getByRole('link', { name: 'Open the new study' }).click();
  await page.waitForURL(/results\/glance/);
  await settled(page);
  await expect(page.getByText('Mean deviation: Auklet 19 tuned')).toBeVisible();
  const study = page.url().split('/')[4];
  await open(page, `${bench.url}/studies`);
  const line = page.locator('li', { has: page.locator(`a[href^="/studies/${study}/"]`) });
  await line.getByRole('button', { name: /^Actions for/ }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('menuitem', { name: 'Export package' }).click();
  const file = info.outputPath('export.zip');
  await (await download).saveAs(file);
  const evaluate = (path: string) =>
    execFileSync(process.execPath, ['bin/vergleich.mjs', 'evaluate', path, '--json'], {
      maxBuffer: 1 << 28,
    });
  expect(evaluate(file).equals(evaluate(DEMO))).toBe(true);
  expect(readFileSync(file).length).toBeGreaterThan(1000);
});

test('what is no package is told in words', async ({ page, bench }) => {
  await open(page, `${bench.url}/studies`);
  await page.getByRole('button', { name: 'Import study' }).click();
  await page.getByLabel('Choose a zip').setInputFiles({
    name: 'study.zip',
    mimeType: 'application/zip',
    buffer: Buffer.from('no zip'),
  });
  await expect(page.getByRole('alert')).toContainText('not a zip that can be read');
});

test('two tabs on the same record: the second sees the first, nothing is overwritten unseen', async ({
  page,
  bench,
  context,
}) => {
  const other = await context.newPage();
  await open(page, `${bench.study}/question`);
  await open(other, `${bench.study}/question`);
  const question = (tab: Page) => tab.getByLabel('question, as your readers would ask it');
  await question(page).fill('First tab?');
  await question(page).blur();
  await expect(page.getByText(/saved \d\d:\d\d/)).toBeVisible();
  // Another field: both changes stand, and the second tab shows the first's.
  const time = other.getByLabel(/print time/);
  await time.fill('7');
  await time.press('Enter');
  await expect(other.getByText(/saved \d\d:\d\d/)).toBeVisible();
  await expect(question(other)).toHaveValue('First tab?');
  await expect(other.getByRole('alert')).toContainText('Someone else changed question');
  // The same field: a person decides.
  const accuracy = (tab: Page) => tab.getByLabel(/^accuracy/);
  await accuracy(page).fill('0.04');
  await accuracy(page).press('Enter');
  await expect(accuracy(page)).toHaveValue('0.04');
  const kept = async () =>
    await (await fetch(bench.study.replace('/studies/', '/api/v1/studies/'))).text();
  await expect.poll(kept).toContain('0.04');
  await accuracy(other).fill('0.06');
  await accuracy(other).press('Enter');
  await expect(other.getByText(/to “0.04” while you wrote “0.06”/)).toBeVisible();
  await other.getByRole('button', { name: 'Use theirs' }).click();
  await expect(accuracy(other)).toHaveValue('0.04');
  await open(page, `${bench.study}/question`);
  await expect(accuracy(page)).toHaveValue('0.04');
  await expect(page.getByLabel(/print time/)).toHaveValue('7');
  // As it was, for the other tests of this bench.
  await accuracy(page).fill('0.03');
  await accuracy(page).press('Enter');
  await page.getByLabel(/print time/).fill('5');
  await page.getByLabel(/print time/).press('Enter');
  await expect(page.getByText(/saved \d\d:\d\d/)).toBeVisible();
});

const add = async (
  page: Page,
  one: string,
  fill: (form: ReturnType<Page['getByRole']>) => Promise<void>,
) => {
  await page
    .getByRole('button', { name: `Add ${one}`, exact: true })
    .first()
    .click();
  const form = page.getByRole('form', { name: `New ${one}` });
  await fill(form);
  await form.getByRole('button', { name: `Add ${one}` }).click();
  await expect(form).toBeHidden();
  await page.waitForLoadState('load');
  await settled(page);
};

/** Adds to the line-up by the one field for it: a name and Enter. */
const addByName = async (page: Page, what: string, name: string) => {
  await page.getByRole('combobox', { name: `Add ${what}` }).fill(name);
  const answered = page.waitForResponse(
    (answer) => answer.url().endsWith('/line-up') && answer.request().method() === 'POST',
  );
  const shown = page.waitForEvent('load');
  await page.keyboard.press('Enter');
  expect((await answered).status()).toBe(201);
  await shown;
  await settled(page);
};

test('a study is typed in at the bench, from the question to the answer', async ({
  page,
  bench,
}) => {
  await open(page, `${bench.url}/studies`);
  await page.getByRole('button', { name: 'New study' }).click();
  await page.getByLabel('Title', { exact: true }).fill('Two at the window');
  await page.getByRole('button', { name: 'Create study' }).click();
  await page.waitForURL(/question/);
  const study = page.url().replace('/question', '');
  await open(page, `${study}/line-up`);
  for (const name of ['Wheatear 7', 'Wryneck 2']) await addByName(page, 'a machine', name);
  await addByName(page, 'a material', 'PCTG');
  await addByName(page, 'an artefact', 'Cube');
  // A cell is typed into where it stands, by keys alone.
  await page.getByRole('button', { name: 'Wheatear 7 stock, maker: not known' }).focus();
  await page.keyboard.type('Sandwich Works');
  await page.keyboard.press('Enter');
  await expect(
    page.getByRole('button', { name: 'Wheatear 7 stock, maker: Sandwich Works' }),
  ).toBeFocused();
  for (let at = 0; at < 2; at += 1) await page.keyboard.press('ArrowDown');
  await page.keyboard.type('big');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toHaveText('type it as 230 × 230 × 250');
  // What was refused stays in its cell, to be typed anew.
  await expect(
    page.getByRole('button', { name: 'Wheatear 7 stock, build, mm: big' }),
  ).toBeFocused();
  await page.keyboard.type('180x180x200');
  await page.keyboard.press('Enter');
  await expect(
    page.getByRole('button', { name: 'Wheatear 7 stock, build, mm: 180 × 180 × 200' }),
  ).toBeFocused();
  await expectAccessible(page);
  await page.getByRole('link', { name: /^Cube/ }).click();
  await page.waitForURL(/artefacts\/cube/);
  await settled(page);
  await add(page, 'dimension', async (form) => {
    await form.getByLabel('name').fill('side x');
    await form.getByLabel('axis').selectOption('x');
    await form.getByLabel('kind').selectOption('external');
    await form.getByLabel(/nominal/).fill('2o');
    await form.getByRole('button', { name: 'Add dimension' }).click();
    await expect(form.getByRole('alert')).toContainText('“2o” is not a number');
    await form.getByLabel(/nominal/).fill('20');
  });
  await open(page, `${study}/runs`);
  for (const name of ['Wheatear 7', 'Wryneck 2']) {
    await page.getByRole('button', { name: `Add a print: Cube, ${name} stock` }).click();
    const panel = page.getByRole('dialog');
    await expect(panel.getByLabel('material')).toHaveValue('pctg');
    await panel.getByRole('button', { name: 'Start', exact: true }).click();
    await expect(panel).toBeHidden();
  }
  await expect(page.getByRole('heading', { name: 'Printing now' })).toBeVisible();
  await page.keyboard.press('1');
  const incident = page.getByRole('dialog', { name: /^Incident/ });
  await incident.getByLabel('mode').selectOption('stalled');
  await incident.getByLabel('cause').selectOption('machine');
  await incident.getByLabel(/downtime/).fill('10:00');
  await incident.getByRole('button', { name: 'Note it' }).click();
  await expect(page.getByRole('button', { name: 'stalled' })).toBeVisible();
  for (let at = 0; at < 2; at += 1) {
    await page.getByRole('button', { name: 'End', exact: true }).first().click();
    const panel = page.getByRole('dialog');
    await panel.getByLabel('outcome').selectOption('success');
    await panel.getByLabel(/print time/).fill('48:10');
    await panel.getByRole('button', { name: 'Save print' }).click();
    await expect(panel).toBeHidden();
  }
  await expect(page.getByText('No machine is printing.')).toBeVisible();
  await open(page, `${study}/measure`);
  for (const value of ['20.02', '20.31']) {
    await page.keyboard.type(value);
    await page.keyboard.press('Enter');
    await expect(page.getByRole('row', { name: /side x/ })).toContainText(value);
    await page.keyboard.press('Control+Enter');
  }
  await expect(page.getByText(/waits? in this browser/)).toBeHidden();
  await open(page, `${study}/results/accuracy`);
  await expect(page.getByRole('button', { name: 'one print' })).toBeVisible();
  await expect(page.locator('[data-figure$=":mae_mm"]').nth(1)).toContainText('0.310');
});

test('a study is deleted by its title and brought back', async ({ page, bench }) => {
  await open(page, `${bench.url}/studies`);
  await page.getByRole('button', { name: 'New study' }).click();
  await page.getByLabel('Title', { exact: true }).fill('Short-lived');
  await page.getByRole('button', { name: 'Create study' }).click();
  await page.waitForURL(/question/);
  await open(page, `${bench.url}/studies`);
  const item = page.getByRole('listitem').filter({ hasText: 'Short-lived' });
  await item.getByRole('button', { name: 'Actions for Short-lived' }).click();
  await page.getByRole('menuitem', { name: 'Delete …' }).click();
  const title = item.getByLabel('Type the study’s title to delete it');
  await title.fill('Wrong');
  await title.press('Enter');
  await expect(item.getByRole('alert')).toContainText('nothing was deleted');
  await title.fill('Short-lived');
  await title.press('Enter');
  await item.getByRole('button', { name: 'Bring it back' }).click();
  await expect(item.getByRole('link', { name: 'Short-lived' })).toBeVisible();
});

test('what other sites’ pages send is turned away', async ({ bench }) => {
  const attempt = (headers: Record<string, string>) =>
    fetch(`${bench.url}/api/v1/studies`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', ...headers },
      body: JSON.stringify({ title: 'Sneaked in', intent: 'machines' }),
    });
  expect((await attempt({ origin: 'https://elsewhere.example' })).status).toBe(403);
  expect((await attempt({ 'sec-fetch-site': 'cross-site' })).status).toBe(403);
  expect((await attempt({ origin: 'null' })).status).toBe(403);
  expect((await attempt({ origin: bench.url })).status).toBe(201);
});

test('a reference that is no contender is told, not computed with', async ({ bench }) => {
  const id = bench.study.split('/').at(-1);
  const api = `${bench.url}/api/v1/studies/${id}`;
  const figure = encodeURIComponent('pairs:A-tuned:accuracy_mm');
  for (const path of ['/results/pairs?ref=nobody', `/evidence?figure=${figure}&ref=nobody`]) {
    expect((await fetch(api + path)).status, path).toBe(404);
  }
  expect((await fetch(`${api}/results/pairs?ref=B-stock`)).status).toBe(200);
});

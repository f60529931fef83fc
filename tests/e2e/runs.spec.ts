import sharp from 'sharp';
import type { AnyRow } from '../../src/core/model/study';
import { createFleet } from '../support/fleet';
import { expect, expectAccessible, open, settled, test, scan } from './bench';

const rowsOf = async (url: string, study: string, table: string): Promise<AnyRow[]> =>
  (await fetch(`${url}/api/v1/studies/${study}/rows/${table}`)).json() as Promise<AnyRow[]>;

test('a day at the bench by keyboard: start, pause, incident, go on, end', async ({
  page,
  bench,
}) => {
  const study = await createFleet(bench.url, 2);
  await open(page, `${bench.url}/studies/${study}/runs`);
  await page.keyboard.press('s');
  const start = page.getByRole('form', { name: 'Start a print' });
  await start.getByLabel('material').selectOption({ label: 'PLA 1' });
  await start.getByRole('button', { name: 'Start', exact: true }).press('Enter');
  const now = page.getByRole('region', { name: 'Printing now' });
  await expect(now).toContainText('1 machine');
  // The next in the order is on the other machine: this one is busy.
  await expect(start).toBeHidden();
  await page.keyboard.press('s');
  await page.getByRole('button', { name: 'Start', exact: true }).press('Enter');
  await expect(now).toContainText('2 machines');
  await page.keyboard.press('Shift+Digit1');
  await expect(now.getByText('paused', { exact: true })).toBeVisible();
  await page.keyboard.press('1');
  const incident = page.getByRole('form', { name: 'Incident' });
  await incident.getByLabel('mode').selectOption('tangled');
  await incident.getByLabel('cause').selectOption('operator');
  await incident.getByRole('button', { name: 'Note it' }).press('Enter');
  await expect(page.getByRole('region', { name: 'Incidents' })).toContainText('tangled');
  await page
    .getByRole('region', { name: 'Incidents' })
    .getByRole('button', { name: /tangled/ })
    .click();
  const grey = { width: 64, height: 48, channels: 3, background: '#888' } as const;
  const photo = await sharp({ create: grey }).png().toBuffer();
  await page
    .getByLabel('add a photo')
    .setInputFiles({ name: 'spool.png', mimeType: 'image/png', buffer: photo });
  await expect(page.getByRole('img', { name: 'Photo 1 of the incident' })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('Shift+Digit1');
  await expect(now.getByText('paused', { exact: true })).toHaveCount(0);
  await now.getByRole('button', { name: 'End' }).first().press('Enter');
  const end = page.getByRole('form', { name: 'End of the print' });
  await end.getByLabel('outcome').selectOption('success');
  await end.getByLabel(/filament used/).fill('40');
  await end.getByLabel(/waste included/).fill('41');
  await end.getByRole('button', { name: 'Save print' }).press('Enter');
  await expect(end.getByRole('alert').first()).toContainText('is above filament_g');
  await end.getByLabel(/waste included/).fill('1');
  await end.getByRole('button', { name: 'Save print' }).press('Enter');
  await expect(page.getByText('1 print ended')).toBeVisible();
  const [print] = await rowsOf(bench.url, study, 'prints');
  expect(print).toMatchObject({ outcome: 'success', filament_g: 40, waste_g: 1 });
  expect((await rowsOf(bench.url, study, 'print_events')).map((event) => event.kind)).toEqual([
    'paused',
    'resumed',
  ]);
  await expectAccessible(page);
});

test('what cannot be is refused with the reason', async ({ bench }) => {
  const study = await createFleet(bench.url, 2);
  const post = async (path: string, content: unknown) => {
    const response = await fetch(`${bench.url}/api/v1/studies/${study}${path}`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(content),
    });
    return { status: response.status, answer: (await response.json()) as { detail?: string } };
  };
  const print = (id: string, more: object) => ({
    print_id: id,
    contender_id: 'c-1',
    artefact_id: 'clip',
    material_id: 'pla',
    repeat: 1,
    started_at: '2026-03-02T09:00:00+01:00',
    ...more,
  });
  expect((await post('/rows/open_prints', print('p1', {}))).status).toBe(201);
  const second = await post('/rows/open_prints', print('p2', { repeat: 2 }));
  expect(second.answer.detail).toContain('is on a machine that is printing already');
  const ended = (more: object) =>
    post('/prints', { print: print('p9', { outcome: 'success', ...more }), specimens: [] });
  const backwards = await ended({ ended_at: '2026-03-02T08:00:00+01:00' });
  expect(backwards.answer.detail).toContain('is before started_at');
  const paused = await ended({ ended_at: '2026-03-02T10:00:00+01:00', paused_s: 4000 });
  expect(paused.answer.detail).toContain('is longer than the whole print');
  const event = { event_id: 'e1', print_id: 'p1', source: 'person', kind: 'resumed' };
  const early = await post('/rows/print_events', { ...event, at: '2026-03-02T09:10:00+01:00' });
  expect(early.answer.detail).toContain('the print was printing then');
});

test('on a phone: an entry without connection is kept, and sent once', async ({ page, bench }) => {
  await page.setViewportSize({ width: 390, height: 800 });
  const study = await createFleet(bench.url, 2);
  await open(page, `${bench.url}/studies/${study}/runs`);
  await page.getByRole('button', { name: /Start next print/ }).click();
  const start = page.getByRole('form', { name: 'Start a print' });
  await start.getByLabel('material').selectOption({ label: 'PLA 1' });
  await page.route('**/api/v1/**', (route) => route.abort('connectionrefused'));
  await start.getByRole('button', { name: 'Start', exact: true }).click();
  await expect(page.getByRole('region', { name: 'Printing now' })).toContainText('1 machine');
  expect(await rowsOf(bench.url, study, 'open_prints')).toEqual([]);
  await page.unroute('**/api/v1/**');
  await expect
    .poll(async () => (await rowsOf(bench.url, study, 'open_prints')).length, { timeout: 20_000 })
    .toBe(1);
  const width = await page.evaluate(() => document.documentElement.scrollWidth);
  expect(width).toBeLessThanOrEqual(390);
});

test('a scanned sticker opens its place of the plan, its print, its specimen', async ({
  page,
  bench,
}) => {
  await open(page, `${bench.study}/plan`);
  await page.keyboard.press('Control+k');
  await page.keyboard.type('A-stock/stair-block/1');
  await page.keyboard.press('Enter');
  await page.waitForURL(/runs\?open=/);
  await settled(page);
  await expect(page.getByRole('dialog', { name: /Stair block · Auklet 19 stock/ })).toBeVisible();
  await open(page, `${bench.study}/results/accuracy`);
  await expect(page.locator('html[data-finder=ready]')).toBeAttached();
  await scan(page, 'K7-004');
  await page.waitForURL(/measure\?specimen=K7-004/);
});

test('the keys of a scanned sticker are no commands of the page that they are typed on', async ({
  page,
  bench,
}) => {
  const study = await createFleet(bench.url, 2);
  await open(page, `${bench.url}/studies/${study}/runs`);
  await page.evaluate(() => {
    for (const key of ['s', '1', 's', 'x', 'y', 'Enter']) {
      document.body.dispatchEvent(
        new KeyboardEvent('keydown', { key, code: `Digit${key}`, bubbles: true }),
      );
    }
  });
  await expect(page.getByRole('search').getByRole('alert')).toContainText(
    'Nothing carries “s1sxy”',
  );
  await expect(page.getByRole('dialog')).toHaveCount(0);
});

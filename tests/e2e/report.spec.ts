import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { unzipSync } from 'fflate';
import type { Page } from '@playwright/test';
import { expect, expectAccessible, HAND_MS, open, settled, test } from './bench';

// What it freezes must not be changed by other tests meanwhile.
test.use({ ownBench: 'report' });

/** Makes the next revision on the Report station, and waits for it. */
async function freeze(page: Page): Promise<void> {
  const button = page.getByRole('button', { name: /^Freeze report \d+$/ });
  const name = await button.innerText();
  await button.click();
  await expect(page.getByRole('button', { name })).toHaveCount(0);
  await expect(
    page.locator('[data-revision]').first().getByRole('link', { name: 'zip' }),
  ).toBeVisible({ timeout: 300_000 });
}

test(
  'from a finished study to a report that is published, and read from disk by somebody who ' +
    'weighs otherwise',
  async ({ page, bench, browser }) => {
    // A report takes its time where the machine has much else to do.
    test.setTimeout(480_000);
    const press = (key: string) => page.keyboard.press(key, { delay: HAND_MS });
    // Two figures are picked where they are read: one by key, one from its evidence.
    await open(page, `${bench.study}/results/glance`);
    await press('j');
    await expect(page.locator('[data-cell="0 0"]')).toBeFocused();
    await page.keyboard.press('ArrowRight');
    await press('u');
    await expect(page.getByText('Auklet 19 tuned: mean deviation is picked')).toBeVisible();
    await page.locator('[data-row="surface"][data-contender="B-stock"]').click();
    const drawer = page.getByRole('complementary', { name: 'Evidence' });
    await drawer.getByRole('button', { name: 'Use in report' }).click();
    await expect(drawer.getByRole('button', { name: 'Picked for the report' })).toBeVisible();
    await page.keyboard.press('Escape');

    await open(page, `${bench.study}/report`);
    await expect(page.getByRole('heading', { name: 'Before publishing' })).toBeVisible();
    await expect(page.getByText('Picked on pages of results:')).toBeVisible();
    // The demo’s sentences are there, each with what it rests on.
    const answer = page.locator('section', { has: page.locator('#words-answer') });
    await expect(answer.getByText('Auklet 19 tuned mean deviation better · 0.06 mm')).toBeVisible();
    // A sentence of one's own takes what was picked.
    const own = 'Both are true enough for every clip that we print.';
    await page.getByLabel('New sentence: The answer').fill(own);
    await page.keyboard.press('Enter');
    const line = answer.locator('li', { has: page.locator(`textarea:text("${own}")`) });
    await expect(line.getByText('Auklet 19 tuned mean deviation 0.022 mm')).toBeVisible();
    await expect(page.getByText('Picked on pages of results:')).toHaveCount(0);
    await expect(page.getByText(/^saved \d\d:\d\d$/)).toBeVisible();
    // A proposed one is accepted as it is, another thrown away.
    const minus = page.locator('section', { has: page.locator('#words-minus') });
    await minus.getByRole('button', { name: 'Accept' }).first().click();
    await expect(minus.locator('[data-sentence]')).toHaveCount(2);
    const plus = page.locator('section', { has: page.locator('#words-plus') });
    const proposed = plus.getByRole('button', { name: 'Dismiss' });
    const before = await proposed.count();
    await proposed.first().click();
    await expect(proposed).not.toHaveCount(before + 1);
    await expectAccessible(page);

    await freeze(page);
    await page.getByRole('button', { name: 'Publish', exact: true }).click();
    const panel = page.getByRole('dialog', { name: /^Publish report/ });
    await panel.getByLabel(/Anyone who can reach this server/).check();
    await panel.getByLabel('/r/').fill('clips-2026');
    await panel.getByRole('button', { name: 'Publish' }).click();
    await expect(page.getByRole('link', { name: '/r/clips-2026' })).toBeVisible();

    await page.getByRole('link', { name: 'cards for video and posts' }).click();
    await settled(page);
    await page.getByRole('radio', { name: 'mean deviation', exact: true }).check();
    const card = page.getByRole('img', { name: 'Card: mean deviation' });
    await expect(card).toBeVisible();
    const download = page.waitForEvent('download');
    await page.getByRole('link', { name: 'PNG' }).click();
    const bytes = readFileSync(await (await download).path());
    expect(bytes.subarray(1, 4).toString()).toBe('PNG');
    await expectAccessible(page);

    const shown = await page.goto(`${bench.url}/r/clips-2026`);
    expect(shown?.status()).toBe(200);
    await expect(page.getByText(own)).toBeVisible();

    // The same as a folder on somebody else's disk, without a network.
    await open(page, `${bench.study}/report`);
    const address = await page
      .locator('[data-revision]')
      .first()
      .getByRole('link', { name: 'zip' })
      .getAttribute('href');
    const zip = await page.request.get(`${bench.url}${address}`);
    const packed = new Uint8Array(await zip.body());
    expect(packed.length).toBeLessThan(8e6);
    const folder = mkdtempSync(join(tmpdir(), 'report-on-disk-'));
    for (const [path, content] of Object.entries(unzipSync(packed))) {
      mkdirSync(dirname(join(folder, path)), { recursive: true });
      writeFileSync(join(folder, path), content);
    }
    const context = await browser.newContext({ offline: true });
    try {
      const reader = await context.newPage();
      const asked: string[] = [];
      const faults: string[] = [];
      reader.on('request', (request) => asked.push(request.url()));
      reader.on('pageerror', (error) => faults.push(error.message));
      await reader.goto(pathToFileURL(join(folder, 'index.html')).href);
      await expect(reader.getByRole('heading', { level: 1 })).toHaveText(
        'Four machines for the clip bench',
      );
      await expect(reader.getByRole('heading', { level: 1 })).toHaveCSS('font-size', '29px');
      await expectAccessible(reader);
      // Someone to whom only the price counts finds another order.
      const rows = reader.locator('#stated tbody tr');
      await expect(rows.first()).toContainText('Gannet X24');
      for (const slider of await reader.getByRole('slider').all()) {
        const isPrice = (await slider.getAttribute('aria-label')) === 'weight of price';
        await slider.focus();
        await reader.keyboard.press(isPrice ? 'End' : 'Home');
      }
      await expect(reader.getByText('By these weights: Auklet 19')).toBeVisible();
      await expect(rows.first()).toContainText('Auklet 19');
      await reader.getByRole('button', { name: 'As stated' }).click();
      await expect(rows.first()).toContainText('Gannet X24');
      await reader.getByRole('button', { name: 'Read without names' }).click();
      await expect(rows.first().getByText('Gannet X24')).toBeHidden();
      expect(asked.filter((url) => !/^(?:file|data):/.test(url))).toEqual([]);
      expect(faults).toEqual([]);

      // Without its script the page says what it has to say, in the stated order.
      const plain = await browser.newContext({ offline: true, javaScriptEnabled: false });
      const still = await plain.newPage();
      await still.goto(pathToFileURL(join(folder, 'index.html')).href);
      await expect(still.locator('#stated tbody tr').first()).toContainText('Gannet X24');
      await expect(still.getByRole('slider')).toHaveCount(0);
      await still.setViewportSize({ width: 390, height: 844 });
      expect(await still.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(
        390,
      );
      await plain.close();
    } finally {
      await context.close();
      rmSync(folder, { recursive: true, force: true });
    }
  },
);

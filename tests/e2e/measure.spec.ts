import type { Page } from '@playwright/test';
import { expect, open, settled, test, HAND_MS } from './bench';

const readings = async (
  study: string,
): Promise<{ specimen_id: string; value_mm: number; operator: string | null }[]> => {
  const id = study.split('/').at(-1);
  const origin = new URL(study).origin;
  return (await fetch(`${origin}/api/v1/studies/${id}/readings`)).json() as never;
};

const field = (page: Page) => page.getByRole('textbox', { name: /^Reading of/ });

const present = (page: Page) => page.getByRole('region', { name: 'Reading' }).getByRole('heading');

test('a specimen is measured with the keyboard alone, and the result changes', async ({
  page,
  bench,
}) => {
  await open(page, `${bench.study}/results/accuracy`);
  const figure = page.locator('[data-figure="accuracy:B-tuned:mae_mm"]');
  const before = await figure.textContent();
  // The first specimen that is not all measured comes up by itself, its first dimension at hand.
  await open(page, `${bench.study}/measure`);
  await expect(field(page)).toBeFocused();
  await expect(present(page)).toContainText('x1 step');
  await page.keyboard.type('20.14');
  await expect(page.locator('[data-mark=deviation]')).toHaveText('+0.14');
  await page.keyboard.press('Enter');
  await expect(present(page)).toContainText('x2 steps');
  await page.keyboard.type('40,15');
  await page.keyboard.press('Enter');
  await expect(present(page)).toContainText('x3 steps');
  // R reads the last dimension again.
  await page.keyboard.press('r');
  await expect(present(page)).toContainText('x2 steps');
  await expect(present(page)).toContainText('reading 2');
  await page.keyboard.type('40.13');
  await page.keyboard.press('Enter');
  const row = page.getByRole('row', { name: /x2 steps/ });
  await expect(row).toContainText('40.140');
  await expect(row).toContainText('+0.140');
  // X: cannot be measured; U takes it back.
  await expect(present(page)).toContainText('x3 steps');
  await page.keyboard.press('x');
  await expect(page.getByRole('row', { name: /x3 steps/ })).toContainText('cannot be measured');
  await page.keyboard.press('u');
  await expect(page.getByRole('row', { name: /x3 steps/ })).not.toContainText('cannot be measured');
  await page.keyboard.type('60.16');
  await page.keyboard.press('Enter');
  await page.keyboard.press('u');
  await expect(present(page)).toContainText('x3 steps');
  await page.keyboard.type('60.15');
  await page.keyboard.press('Enter');
  await expect(page.locator('[data-mark=specimen-summary]')).toContainText('3 of 17 dimensions');
  // Saved as typed: another visit finds them.
  await expect(page.getByText(/entr(y|ies) waits?/)).toHaveCount(0);
  const specimen =
    new URL(page.url()).searchParams.get('specimen') ??
    (await page.locator('b.font-mono').first().textContent());
  await open(page, `${bench.study}/measure?specimen=${specimen}`);
  await expect(page.getByRole('row', { name: /x3 steps/ })).toContainText('60.150');
  await open(page, `${bench.study}/results/accuracy`);
  await expect(figure).not.toHaveText(before ?? '');
});

test('what is doubtful is asked about, and nothing is taken silently', async ({ page, bench }) => {
  await open(page, `${bench.study}/measure?specimen=K7-002`);
  // What was read before is there, and does not move the place any more.
  await expect(present(page)).toContainText('reading');
  await page.keyboard.press('ArrowDown');
  await expect(present(page)).toContainText('reading');
  const name = await present(page).textContent();
  const count = (await readings(bench.study)).length;
  const input = field(page);
  await page.keyboard.type('2o.1');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('“2o.1” is not a number');
  await expect(input).toHaveValue('2o.1');
  await expect(present(page)).toHaveText(name ?? '');
  await page.keyboard.press('Escape');
  await page.keyboard.type('201');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText(
    /201 is 1\d\d\.\d\d mm above the nominal .* Press Enter again to save it/,
  );
  await expect(input).toHaveValue('201');
  expect((await readings(bench.study)).length).toBe(count);
  await page.keyboard.press('Enter');
  await expect(input).toHaveValue('');
  await expect.poll(async () => (await readings(bench.study)).length).toBe(count + 1);
  await page.keyboard.press('u');
  await expect.poll(async () => (await readings(bench.study)).length).toBe(count);
});

test('specimens are chosen by key and by their sticker', async ({ page, bench }) => {
  await open(page, `${bench.study}/measure`);
  const code = page.locator('h1 ~ b').first();
  const first = await code.textContent();
  await page.keyboard.press('PageUp');
  await expect(code).not.toHaveText(first ?? '');
  await page.keyboard.press('Control+Enter');
  await expect(code).toHaveText(first ?? '');
  // All at once, as a scanner does; a driver of the browser cannot be relied on to be as fast.
  await page.keyboard.insertText('k7-003');
  await page.keyboard.press('Enter');
  await expect(code).toHaveText('K7-003');
  await expect(field(page)).toBeFocused();
});

test('entries made while the server is away wait, and arrive once', async ({ page, bench }) => {
  await page.addInitScript(() => localStorage.setItem('vergleich.operator', 'away'));
  await open(page, `${bench.study}/measure?specimen=K7-004`);
  await expect(field(page)).toBeFocused();
  // The browser keeps the page and what it is made of by now.
  const isKept = () =>
    page.evaluate(async () => {
      const pages = await caches.match(location.href);
      const made = performance.getEntriesByType('resource').map(({ name }) => name);
      const built = made.filter((name) => new URL(name).pathname.startsWith('/_astro/'));
      const found = await Promise.all(built.map((name) => caches.match(name)));
      return pages !== undefined && built.length > 0 && found.every((one) => one !== undefined);
    });
  await expect.poll(isKept).toBe(true);
  await bench.stop();
  const nominals = ['4.01', '4.02', '4.03'];
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('ArrowUp');
  for (const value of nominals) {
    // The same dimension each time: R goes back to it.
    await page.keyboard.type(value);
    await page.keyboard.press('Enter');
    if (await page.getByText('Press Enter again to save it').isVisible())
      await page.keyboard.press('Enter');
    // A letter that digits follow at once is a scanned code.
    await page.keyboard.press('r', { delay: HAND_MS });
  }
  const waiting = page.getByText('3 entries wait in this browser for the server.');
  await expect(waiting).toBeVisible();
  // A reload opens what was open, and one more is read there.
  await page.reload();
  await settled(page);
  await expect(waiting).toBeVisible();
  await expect(field(page)).toBeFocused();
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('ArrowUp');
  await page.keyboard.type('4.04');
  await page.keyboard.press('Enter');
  const four = page.getByText('4 entries wait in this browser for the server.');
  const asked = page.getByText('Press Enter again to save it');
  await expect(four.or(asked)).toBeVisible();
  if (await asked.isVisible()) await page.keyboard.press('Enter');
  await expect(four).toBeVisible();
  await bench.start();
  // One, or several.
  await expect(page.getByText(/waits? in this browser/)).toBeHidden();
  const mine = (await readings(bench.study)).filter((row) => row.operator === 'away');
  expect(mine.map((row) => row.value_mm).sort()).toEqual([4.01, 4.02, 4.03, 4.04]);
});

test('on a phone nothing is cut off', async ({ page, bench }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  for (const path of ['/measure', '/runs', '/results/accuracy', '/question']) {
    await open(page, bench.study + path);
    const overflow = await page.evaluate(() => document.documentElement.scrollWidth - innerWidth);
    expect(overflow, path).toBeLessThanOrEqual(0);
  }
});

test('two at the bench see each other’s readings, and who reads results is told', async ({
  page,
  browser,
  bench,
}) => {
  const place = `${bench.study}/measure?specimen=K7-003`;
  const context = await browser.newContext();
  const [other, reader] = [await context.newPage(), await context.newPage()];
  await open(reader, `${bench.study}/results/accuracy`);
  await open(other, place);
  await open(page, place);
  await expect(present(other)).toContainText('reading 2');
  await expect(field(page)).toBeFocused();
  // What the other one has half typed stays as it is.
  await field(other).fill('12.');
  await page.keyboard.type('40.02');
  await page.keyboard.press('Enter');
  await expect(present(other)).toContainText('reading 3');
  await expect(field(other)).toHaveValue('12.');
  // Results stay as they are read until their reader wants the newer ones.
  const notice = reader.getByText('There is newer evidence than this page shows.');
  await expect(notice).toBeVisible();
  await reader.getByRole('button', { name: 'Update page' }).press('Enter');
  await expect(notice).toHaveCount(0);
  // Taken back here, it is gone there.
  await page.keyboard.press('u');
  await expect(present(other)).toContainText('reading 2');
  await context.close();
});

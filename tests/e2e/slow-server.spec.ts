import type { Locator, Page } from '@playwright/test';
import { expect, open, settled, test } from './bench';

test.use({ ownBench: 'slow-server' });

/** The server takes its time for whatever a page asks of it. */
const SLOW_MS = 1500;
async function slowDown(page: Page): Promise<void> {
  await page.route('**/api/v1/**', async (route) => {
    if (!route.request().url().includes('/live')) {
      await new Promise((resolve) => setTimeout(resolve, SLOW_MS));
    }
    await route.continue();
  });
}

/** What waits for an answer has it, and whatever follows from it has been done. */
const answered = (page: Page): Promise<void> => page.waitForTimeout(3 * SLOW_MS);

/**
 * Types a value into a field and Enter, and goes on typing into another one at once: the answer leaves the cursor and
 * what is typed where they are.
 */
async function hop(page: Page, from: Locator, value: string, to: Locator, typed: string) {
  await from.fill(value);
  await from.press('Enter');
  await to.click();
  await page.keyboard.press('ControlOrMeta+A');
  await page.keyboard.type(typed, { delay: 60 });
  await answered(page);
  await expect(to).toBeFocused();
  await expect(to).toHaveValue(typed);
  await page.keyboard.press('Tab');
  await answered(page);
}

test('a hand that does not wait for a slow server loses and misplaces nothing, at any station', async ({
  page,
  bench,
}) => {
  await test.step('Question: fields saved as they are left', async () => {
    await open(page, `${bench.study}/question`);
    await slowDown(page);
    const [accuracy, surface] = [page.getByLabel(/^accuracy/), page.getByLabel(/^surface index/)];
    await hop(page, accuracy, '0.06', surface, '6');
    await page.reload();
    await settled(page);
    await expect(accuracy).toHaveValue('0.06');
    await expect(surface).toHaveValue('6');
  });

  await test.step('Line-up: cells', async () => {
    await open(page, `${bench.study}/line-up`);
    const cell = (name: RegExp) => page.getByRole('button', { name });
    await cell(/stock, maker: /)
      .first()
      .click();
    await page.keyboard.press('ControlOrMeta+A');
    await page.keyboard.type('Skerry');
    await page.keyboard.press('Enter');
    await cell(/stock, serial number: /)
      .nth(1)
      .click();
    await page.keyboard.type('SN-77', { delay: 60 });
    await answered(page);
    await expect(page.getByLabel(/stock, serial number$/)).toBeFocused();
    await expect(page.getByLabel(/stock, serial number$/)).toHaveValue('SN-77');
    await page.keyboard.press('Enter');
    await answered(page);
    await page.reload();
    await settled(page);
    await expect(cell(/stock, maker: Skerry$/).first()).toBeVisible();
    await expect(cell(/stock, serial number: SN-77$/)).toHaveCount(1);
  });

  await test.step('Line-up: two machines typed one after another are two', async () => {
    const add = page.getByRole('combobox', { name: 'Add a machine' });
    await add.click();
    await page.keyboard.type('Quick one');
    await page.keyboard.press('Enter');
    await page.keyboard.type('Quick two', { delay: 30 });
    await page.keyboard.press('Enter');
    await expect(page.getByRole('columnheader', { name: /Quick two/ })).toBeVisible();
    await expect(page.getByRole('columnheader', { name: /Quick one/ })).toBeVisible();
  });

  await test.step('Plan: repeats, and how the order is drawn', async () => {
    await open(page, `${bench.study}/plan`);
    const repeats = page.getByLabel(/^Repeats: /);
    await hop(page, repeats.nth(0), '4', repeats.nth(1), '5');
    await expect(repeats.nth(0)).toHaveValue('4');
    await hop(page, page.getByLabel('seed'), '77', page.getByLabel('readings of a dimension'), '2');
    await open(page, `${bench.study}/plan`);
    await expect(page.getByLabel('seed')).toHaveValue('77');
    await expect(page.getByLabel('readings of a dimension')).toHaveValue('2');
  });

  await test.step('Plan: a link that is followed while cells wait for their turn', async () => {
    const repeats = page.getByLabel(/^Repeats: /);
    for (const [at, value] of ['5', '6', '7'].entries()) {
      await repeats.nth(at).fill(value);
      await page.keyboard.press('Enter');
    }
    await page
      .getByRole('navigation', { name: 'Stations' })
      .getByRole('link', { name: /^Runs/ })
      .click();
    await page.waitForURL(/\/runs/);
    await open(page, `${bench.study}/plan`);
    for (const [at, value] of ['5', '6', '7'].entries()) {
      await expect(repeats.nth(at)).toHaveValue(value);
    }
  });

  await test.step('Runs: the facts of a print', async () => {
    await open(page, `${bench.study}/runs`);
    await page
      .getByRole('button', { name: /, repeat 1: / })
      .first()
      .click();
    const form = page.getByRole('dialog').getByRole('form', { name: 'Print' });
    await hop(page, form.getByLabel(/^ambient/), '21.5', form.getByLabel(/^humidity/), '48');
    await page.keyboard.press('Escape');
  });

  await test.step('Cost: what it rests on', async () => {
    await open(page, `${bench.study}/results/cost`);
    const [energy, hands] = [page.getByLabel('energy, per kWh'), page.getByLabel('wage, per h')];
    await hop(page, energy, '0.41', hands, '37');
    await open(page, `${bench.study}/results/cost`);
    await expect(page.getByLabel('energy, per kWh')).toHaveValue('0.41');
    await expect(page.getByLabel('wage, per h')).toHaveValue('37');
  });
});

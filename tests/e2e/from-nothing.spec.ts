import { join } from 'node:path';
import type { Page } from '@playwright/test';
import { expect, expectAccessible, open, settled, test } from './bench';

/** Counts what hands do: clicks, and keys besides names and values. */
function hands(page: Page) {
  const done = { clicks: 0, keys: 0 };
  return {
    done,
    click: async (target: ReturnType<Page['getByRole']>) => {
      done.clicks += 1;
      await target.click();
    },
    /** A name or a value, typed. */
    type: (text: string) => page.keyboard.type(text),
    press: async (...keys: readonly string[]) => {
      for (const key of keys) {
        done.keys += 1;
        await page.keyboard.press(key);
      }
    },
  };
}

const SLICED = ['A-stock', 'A-tuned', 'B-stock', 'B-tuned'].map((name) =>
  join('demo', 'clip-bench', 'sliced', `stair-block-${name}.gcode.gz`),
);

/** A study is begun, and its line-up opened. */
async function begin(page: Page, hand: ReturnType<typeof hands>, title: string): Promise<void> {
  await hand.click(page.getByRole('link', { name: 'New study' }));
  await page.waitForURL(/studies\?do=new/);
  await settled(page);
  await hand.type(title);
  await hand.press('Enter');
  await page.waitForURL(/question/);
  await settled(page);
  await hand.click(page.getByRole('link', { name: /^Line-up/ }));
  await page.waitForURL(/line-up/);
  await settled(page);
}

/** The next print is started and ended, and its first size is read. */
async function firstReading(
  page: Page,
  hand: ReturnType<typeof hands>,
  value: string,
  begin: () => Promise<void>,
) {
  await hand.click(page.getByRole('link', { name: /^Runs/ }));
  await page.waitForURL(/runs/);
  await settled(page);
  await begin();
  const start = page.getByRole('dialog');
  await hand.click(start.getByRole('button', { name: 'Start', exact: true }));
  await expect(start).toBeHidden();
  await hand.click(page.getByRole('button', { name: 'End', exact: true }).first());
  const end = page.getByRole('dialog');
  await end.getByLabel('outcome').selectOption('success');
  hand.done.keys += 2;
  await hand.click(end.getByRole('button', { name: 'Save print' }));
  await expect(end).toBeHidden();
  await hand.click(page.getByRole('link', { name: /^Measure/ }));
  await page.waitForURL(/measure/);
  await settled(page);
  await hand.type(value);
  await hand.press('Enter');
  await expect(page.getByRole('cell', { name: value }).first()).toBeVisible();
}

test('from nothing to the first kept reading by dropping sliced files', async ({ page, bench }) => {
  await open(page, bench.url);
  const began = Date.now();
  const hand = hands(page);
  await begin(page, hand, 'From four files');
  await page.getByLabel('Choose sliced files').setInputFiles(SLICED);
  hand.done.clicks += 1;
  const form = page.getByRole('form', { name: 'From sliced files' });
  await expect(form.getByLabel('machine of stair-block-A-stock.gcode.gz')).toHaveValue('Auklet 19');
  await expect(
    form.getByLabel('profile of stair-block-B-tuned.gcode.gz', { exact: true }),
  ).toHaveValue('Gannet, clip bench');
  await expect(form.getByLabel('part of stair-block-B-tuned.gcode.gz')).toHaveValue('Stair block');
  await expectAccessible(page);
  await hand.click(form.getByRole('button', { name: 'Put 4 files in' }));
  await expect(page.getByRole('button', { name: 'Gannet X24 tuned', exact: true })).toBeVisible();
  for (const name of ['Auklet 19 stock', 'Auklet 19 tuned', 'Gannet X24 stock']) {
    await expect(page.getByRole('button', { name, exact: true })).toBeVisible();
  }
  await expect(page.getByRole('link', { name: /^Stair block.*17 dimensions/ })).toBeVisible();
  await expect(
    page.getByRole('button', { name: /^Auklet 19 stock, speed outer wall, mm\/s: 95/ }),
  ).toBeVisible();
  await firstReading(page, hand, '20.02', () => hand.press('s'));
  expect(Date.now() - began).toBeLessThan(60_000);
  expect(hand.done.clicks).toBeLessThanOrEqual(12);
  expect(hand.done.keys).toBeLessThanOrEqual(25);
});

test('from nothing to the first kept reading by names', async ({ page, bench }) => {
  await open(page, bench.url);
  const began = Date.now();
  const hand = hands(page);
  await begin(page, hand, 'By names');
  const add = async (what: string, name: string) => {
    await hand.click(page.getByRole('combobox', { name: `Add ${what}` }));
    await hand.type(name);
    const answered = page.waitForResponse(
      (answer) => answer.url().endsWith('/line-up') && answer.request().method() === 'POST',
    );
    await hand.press('Enter');
    expect((await answered).status()).toBe(201);
    await page.waitForLoadState('load');
    await settled(page);
  };
  await add('a machine', 'Ruff 3');
  await add('a material', 'ASA');
  await hand.click(page.getByRole('link', { name: 'Make artefact' }));
  await page.waitForURL(/artefacts\/new/);
  await settled(page);
  await hand.click(page.getByRole('button', { name: /^Add it|^Save|^Add to the study/ }).first());
  await page.waitForURL(/artefacts\/(?!new)/);
  await settled(page);
  await firstReading(page, hand, '20.02', () =>
    hand.click(page.getByRole('button', { name: /^Add a print: .*Ruff 3 stock/ })),
  );
  expect(Date.now() - began).toBeLessThan(180_000);
  expect(hand.done.clicks).toBeLessThanOrEqual(12);
  expect(hand.done.keys).toBeLessThanOrEqual(25);
});

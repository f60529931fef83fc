import { expect, expectAccessible, open, settled, test } from './bench';

test('a new user sees who is more accurate, by how much, and with which caveat', async ({
  page,
  bench,
}) => {
  await open(page, bench.url);
  await page.getByRole('link', { name: 'Four machines for the clip bench', exact: true }).click();
  await page.getByRole('link', { name: 'Accuracy', exact: true }).click();
  const tuned = page.getByRole('row', { name: /Auklet 19\s+tuned/ }).first();
  await expect(tuned.getByRole('button', { name: /A tuned better · 0\.0\d mm/ })).toBeVisible();
  await expect(page.getByRole('row', { name: /Fulmar 38/ }).first()).toContainText(
    /too close to call · \d+ prints each would tell/,
  );
  await expect(page.getByText(/the smallest difference that matters here/)).toBeVisible();
  await expect(page.getByText(/walls 0\.0\d mm too fat/).first()).toBeVisible();
  await expect(page.getByText(/X: 0\.3\d % large/)).toBeVisible();
});

test('every figure opens its evidence by keyboard, and Esc goes back to it', async ({
  page,
  bench,
}) => {
  await open(page, `${bench.study}/results/accuracy`);
  await expect(page.locator('html[data-evidence=ready]')).toBeAttached();
  const figure = page.locator('[data-figure="accuracy:A-stock:mae_mm"]');
  await figure.focus();
  await page.keyboard.press('Enter');
  const drawer = page.getByRole('complementary', { name: 'Evidence' });
  await expect(
    drawer.getByRole('heading', { name: 'Auklet 19 stock: Mean absolute deviation' }),
  ).toBeVisible();
  await expect(drawer.getByText(/from t over prints/)).toBeVisible();
  await expect(drawer.getByRole('cell', { name: 'Stair block' }).first()).toBeVisible();
  await expect(drawer.getByRole('cell', { name: 'hole 6' }).first()).toBeVisible();
  // On a phone nothing of a row lies beside the page, and it is a row of cells still.
  await page.setViewportSize({ width: 390, height: 844 });
  await expect(drawer.getByRole('cell', { name: 'hole 6' }).first()).toBeVisible();
  const beside = await drawer
    .locator('.overflow-x-auto')
    .evaluateAll((all) => all.filter((one) => one.scrollWidth > one.clientWidth).length);
  expect(beside).toBe(0);
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.keyboard.press('Escape');
  await expect(drawer).toBeHidden();
  await expect(figure).toBeFocused();
});

test('every kind of figure has evidence', async ({ page, bench }) => {
  for (const tab of ['accuracy', 'speed', 'reliability']) {
    await open(page, `${bench.study}/results/${tab}`);
    await expect(page.locator('html[data-evidence=ready]')).toBeAttached();
    const figures = await page.locator('[data-figure]').evaluateAll((all) => [
      ...new Map(
        all.map((one) => {
          const [kind, , part] = ((one as HTMLElement).dataset.figure ?? '').split('/');
          return [`${kind}/${part ? 'part' : ''}`, (one as HTMLElement).dataset.figure ?? ''];
        }),
      ).values(),
    ]);
    expect(figures.length).toBeGreaterThan(0);
    // One of them is opened by hand, all are asked for.
    const [first = ''] = figures;
    await page.locator(`[data-figure="${first}"]`).first().click();
    const drawer = page.getByRole('complementary', { name: 'Evidence' });
    await expect(drawer.getByRole('table').first(), first).toBeVisible();
    await page.keyboard.press('Escape');
    const evidence = bench.study.replace('/studies/', '/api/v1/studies/');
    for (const figure of figures) {
      const answer = await page.request.get(
        `${evidence}/evidence?figure=${encodeURIComponent(figure)}`,
      );
      expect(answer.status(), figure).toBe(200);
      const { tables } = (await answer.json()) as { tables: { rows: unknown[] }[] };
      expect(
        tables.some(({ rows }) => rows.length > 0),
        figure,
      ).toBe(true);
    }
  }
});

test('the line-up strip hides, and changes the reference, in the address', async ({
  page,
  bench,
}) => {
  await open(page, `${bench.study}/results/accuracy`);
  await page.getByRole('link', { name: /Hide\s+Fulmar 38/ }).click();
  await expect(page).toHaveURL(/hide=D-stock/);
  await expect(page.getByRole('main').getByText('Fulmar 38')).toHaveCount(0);
  await page.getByRole('link', { name: 'Compare with Gannet X24 stock' }).click();
  await expect(page).toHaveURL(/hide=D-stock&ref=B-stock/);
  await expect(page.getByRole('row', { name: /Auklet 19\s+stock/ }).first()).toContainText(
    /A worse · 0\.0\d mm/,
  );
  await page.getByRole('link', { name: 'Runs' }).click();
  await expect(page).toHaveURL(/runs\?hide=D-stock&ref=B-stock/);
  await page.getByRole('link', { name: 'as the study has it' }).click();
  await expect(page).not.toHaveURL(/\?/);
});

test('speed and reliability say what they prove', async ({ page, bench }) => {
  await open(page, `${bench.study}/results/speed`);
  await expect(page.getByRole('button', { name: /^B better · 6\d % less time$/ })).toBeVisible();
  await page.getByRole('link', { name: 'Reliability' }).click();
  const row = page.getByRole('row', { name: /Gannet X24\s+stock/ }).first();
  await expect(row).toContainText('14 of 14 succeeded: failure rate below 19 %');
  const auklet = page.getByRole('row', { name: /Auklet 19\s+stock/ }).first();
  await expect(auklet).toContainText('12/14');
  await expect(auklet).toContainText('12/12');
});

const PAGES = [
  '/question',
  '/line-up',
  '/plan',
  '/runs',
  '/measure',
  '/measure/ladders',
  '/inspect',
  '/inspect/photos',
  '/inspect/side-by-side',
  '/inspect/agreement',
  '/results/accuracy',
  '/results/speed',
  '/results/limits',
  '/results/reliability',
  '/results/glance',
  '/results/head-to-head',
  '/results/machine-or-profile',
  '/results/scorecard',
  '/results/cost',
  '/results/surface',
  '/machines/gannet',
  '/materials',
  '/sheets',
  '/follow-ups',
  '/report',
];

test('the desk and the list of studies are accessible', async ({ page, bench }) => {
  await open(page, bench.url);
  await expect(page.getByText('Best for our clip bench')).toBeVisible();
  await expectAccessible(page);
  await open(page, `${bench.url}/studies`);
  await expectAccessible(page);
  await open(page, `${bench.url}/words`);
  await expect(page.getByRole('heading', { name: 'Confidence interval' })).toBeVisible();
  await expectAccessible(page);
});

/** Pages of every kind of mark and chart: what is readable there in the dark is elsewhere. */
const ALSO_DARK = new Set([
  '/results/accuracy',
  '/results/glance',
  '/results/scorecard',
  '/runs',
  '/report',
  '/measure',
]);

for (const path of PAGES) {
  test(`${path} is accessible${ALSO_DARK.has(path) ? ', and as readable in the dark' : ''}`, async ({
    page,
    bench,
  }) => {
    await open(page, bench.study + path);
    await expectAccessible(page);
    if (!ALSO_DARK.has(path)) return;
    await page.emulateMedia({ colorScheme: 'dark' });
    await expectAccessible(page, ['color-contrast']);
  });
}

test('the keys of a page are shown on ?', async ({ page, bench }) => {
  await open(page, `${bench.study}/measure`);
  await expect(page.locator('html[data-keys-help=ready]')).toBeAttached();
  await page.keyboard.press('?');
  const keys = page.getByRole('dialog', { name: 'Keys of this page' });
  await expect(keys.getByText('cannot be measured')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(keys).toBeHidden();
});

test('an address that leads nowhere says so', async ({ page, bench }) => {
  const answer = await page.goto(`${bench.url}/studies/none/runs`);
  expect(answer?.status()).toBe(404);
  await settled(page);
  await expect(
    page.getByRole('heading', { name: 'There is nothing at this address' }),
  ).toBeVisible();
});

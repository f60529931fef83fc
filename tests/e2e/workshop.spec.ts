import { STAIR_BLOCK } from '../support/demo-files';
import { expect, expectAccessible, open, settled, test } from './bench';

test.use({ ownBench: 'workshop' });

test('anything is found by its name or code, by keys alone', async ({ page, bench }) => {
  await open(page, bench.url);
  await page.keyboard.press('Control+k');
  await page.keyboard.type('gannet');
  const list = page.getByRole('listbox', { name: 'Find anything by name or code' });
  await expect(list.getByRole('option', { name: /^Gannet X24/ })).toContainText('machine');
  await page.keyboard.press('ArrowDown');
  for (let at = 0; at < 12; at += 1) {
    const chosen = list.locator('[aria-selected="true"]');
    if ((await chosen.textContent())?.startsWith('Gannet X24machine')) break;
    await page.keyboard.press('ArrowDown');
  }
  await page.keyboard.press('Enter');
  await page.waitForURL(/machines\//);
  await expect(page.getByRole('heading', { level: 1, name: /^Gannet X24/ })).toBeVisible();
  await open(page, `${bench.study}/plan`);
  await page.keyboard.press('Control+k');
  await page.keyboard.type('no such thing at all');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('search').getByRole('alert')).toHaveText(
    'Nothing carries “no such thing at all” in its name or code.',
  );
});

test('the machines, and one machine’s dossier over all studies', async ({ page, bench }) => {
  await open(page, `${bench.url}/machines`);
  await expectAccessible(page);
  const row = page.getByRole('row', { name: /^Gannet X24/ });
  await expect(row).toContainText(/\d studies/);
  await expect(row).toContainText('of another: test again');
  await row.getByRole('link', { name: 'Gannet X24' }).click();
  await settled(page);
  await expectAccessible(page);
  const trials = page.getByRole('region', { name: 'Feature and fault tests' });
  await expect(trials.getByRole('row', { name: /^runout sensor/ })).toContainText(
    /([1-9]\d*) of \1/,
  );
  await expect(trials.getByRole('row', { name: /^refill/ })).toContainText('not tried');
  const claims = page.getByRole('region', { name: 'Claims' });
  await expect(claims.getByRole('row', { name: /48 dB\(A\)/ })).toContainText('refuted');
  const setup = page.getByRole('region', { name: 'Set-up' });
  await expect(setup.getByRole('row', { name: /^plate flatness/ })).toContainText('outside');
  await expect(page.getByRole('region', { name: 'What it can print' })).toContainText('PETG');
  // What figures say of a claim that nobody has judged is taken over as what was found.
  await open(page, `${bench.url}/machines`);
  await page.getByRole('link', { name: 'Fulmar 38' }).click();
  await settled(page);
  const promised = claims.getByRole('row', { name: /195 mm\/s/ });
  await expect(promised.getByRole('cell')).toContainText('untested');
  await promised.getByRole('button', { name: /^Take over as the finding/ }).press('Enter');
  await expect(promised.getByRole('cell')).toHaveText(/^refuted asked for, reached \d+ mm\/s$/);
  await page.setViewportSize({ width: 390, height: 844 });
  const wide = await page.evaluate(() => document.documentElement.scrollWidth);
  expect(wide).toBeLessThanOrEqual(390);
});

test('the library and the standings of a part, ordered by what is asked for', async ({
  page,
  bench,
}) => {
  await open(page, `${bench.url}/artefacts`);
  await expectAccessible(page);
  // Other tests of this server may have made blocks of the same name.
  await page.locator(`a[href$="${STAIR_BLOCK}"]`).click();
  await settled(page);
  await expect(page.getByRole('heading', { name: 'Standings on the Stair block' })).toBeVisible();
  await expectAccessible(page);
  const first = page.getByRole('region', { name: 'Standings' }).locator('tbody tr').first();
  await expect(first).toContainText('Auklet 19');
  await page.getByRole('tab', { name: 'time' }).click();
  await expect(first).toContainText('Gannet X24');
  await expect(first.getByRole('img', { name: /^Gannet X24: \d/ })).toBeVisible();
});

for (const path of ['/materials', '/instruments', '/profiles']) {
  test(`${path} of the workshop is accessible, and opens one by one`, async ({ page, bench }) => {
    await open(page, bench.url + path);
    await expectAccessible(page);
    await page.getByRole('rowheader').first().getByRole('link').click();
    await settled(page);
    await expect(page.getByRole('heading', { name: 'Where it was used' })).toBeVisible();
    await expectAccessible(page);
  });
}

test('a study is begun with a machine of the workshop, and again as another', async ({
  page,
  bench,
}) => {
  await open(page, `${bench.url}/machines`);
  await page.getByRole('link', { name: 'Petrel G27' }).click();
  await settled(page);
  await page.getByRole('link', { name: 'New study with it' }).click();
  await settled(page);
  await page.getByLabel('Title', { exact: true }).fill('The Petrel by itself');
  await page.keyboard.press('Enter');
  await page.waitForURL(/line-up/);
  await settled(page);
  await expect(page.getByRole('button', { name: 'Petrel G27 stock', exact: true })).toBeVisible();
  await expect(
    page.getByRole('button', { name: 'Petrel G27 stock, maker: Trident Apparatus' }),
  ).toBeVisible();
  // The column's head opens what is known of it; our own profile comes beside it.
  await page.getByRole('button', { name: 'Petrel G27 stock', exact: true }).click();
  const drawer = page.getByRole('complementary', { name: 'Contender' });
  await drawer.getByRole('button', { name: 'Add our own profile beside it' }).click();
  await expect(page.getByRole('button', { name: 'Petrel G27 tuned', exact: true })).toBeVisible();
  const study = page.url().replace(/\/line-up.*/, '');
  await page.getByRole('combobox', { name: 'Add an artefact' }).fill('stair');
  await page
    .getByRole('option', { name: /^Stair block/ })
    .first()
    .click();
  await expect(page.getByRole('link', { name: /^Stair block.*17 dimensions/ })).toBeVisible();
  await open(page, `${bench.url}/studies`);
  const card = page.getByRole('listitem').filter({ hasText: 'The Petrel by itself' });
  await card.getByRole('button', { name: 'Actions for The Petrel by itself' }).click();
  await page.getByRole('menuitem', { name: 'Duplicate …' }).click();
  await expect(page.getByLabel('Title', { exact: true })).toHaveValue('The Petrel by itself (2)');
  await page.getByLabel('Title', { exact: true }).fill('And the Fulmar');
  await page
    .getByRole('combobox', { name: 'with', exact: true })
    .selectOption({ label: 'Fulmar 38' });
  await page.getByRole('button', { name: 'Create study' }).click();
  await page.waitForURL(/line-up/);
  await settled(page);
  expect(page.url()).not.toContain(study);
  for (const name of ['Petrel G27 stock', 'Petrel G27 tuned', 'Fulmar 38 stock']) {
    await expect(page.getByRole('button', { name, exact: true })).toBeVisible();
  }
});

test('at the machine, what is unpacked, tried and promised is written down by key, on a phone', async ({
  page,
  bench,
}) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await open(page, `${bench.study}/machines/petrel`);
  await expect(page.locator('html')).toHaveAttribute('data-book', 'ready');
  await page.keyboard.press('1');
  const step = page.getByRole('form', { name: 'New step' });
  await expect(step.getByLabel('what')).toBeFocused();
  await page.keyboard.type('unpack');
  await step.getByLabel('kind').selectOption('unpack');
  await step.getByRole('button', { name: /Start clock/ }).click();
  await expect(step.getByRole('timer')).toHaveText('0:01');
  await step.getByRole('button', { name: /Stop clock/ }).click();
  await expect(step.getByLabel(/minutes/)).not.toHaveValue('');
  await step.getByLabel(/^snag/).fill('2');
  await page.keyboard.press('Enter');
  await expect(
    page
      .getByRole('listitem')
      .filter({ hasText: /^unpack · unpack · minutes 0\.0\d+ · snag, 0–4 2/ }),
  ).toBeVisible();
  // The next step stands ready.
  await page.keyboard.type('level');
  await step.getByLabel('kind').selectOption('level');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('listitem').filter({ hasText: /^level · level/ })).toBeVisible();
  await expectAccessible(page);
  await page.keyboard.press('Escape');
  await expect(step).toBeHidden();
  await page.keyboard.press('7');
  const trial = page.getByRole('form', { name: 'New trial' });
  await trial.getByLabel('feature').selectOption('runout-sensor');
  await trial.getByLabel('provoked').fill('filament cut');
  await trial.getByLabel('outcome').selectOption('late');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('listitem').filter({ hasText: 'filament cut' })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('3');
  const heat = page.getByRole('form', { name: 'New heat-up' });
  await heat.getByLabel('what').selectOption('bed');
  await heat.getByLabel(/^from/).fill('21');
  await heat.getByLabel(/^to \(/).fill('60');
  await heat.getByLabel(/^duration/).fill('1:48');
  await page.keyboard.press('Enter');
  const row = page.getByRole('listitem').filter({ hasText: /bed.*60/ });
  await expect(row).toBeVisible();
  await row.getByRole('button', { name: /^Remove/ }).click();
  await expect(row).toBeHidden();
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  // The whole dossier shows it.
  await page.getByRole('link', { name: 'Its whole dossier' }).click();
  await settled(page);
  const trials = page.getByRole('region', { name: 'Feature and fault tests' });
  await expect(trials.getByRole('row', { name: /^runout sensor/ })).toContainText('0 of 1');
  await expect(page.getByRole('region', { name: 'Set-up' })).toContainText('unpack');
});

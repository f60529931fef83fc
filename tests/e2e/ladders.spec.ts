import { expect, expectAccessible, open, test, HAND_MS } from './bench';

test('a ladder is tried by keyboard, and its limit follows', async ({ page, bench }) => {
  await open(page, `${bench.study}/measure/ladders`);
  const option = page.getByLabel('Specimen', { exact: true }).getByRole('option', {
    name: /Ring stack/,
  });
  const value = await option.first().getAttribute('value');
  await page.getByLabel('Specimen', { exact: true }).selectOption(value);
  await page.getByRole('heading', { name: 'Ladders and checks' }).click();
  // As a hand types; a scanner is many times faster, and its keys are no answers.
  const ladder = page.getByRole('region', { name: 'Rings that turn' });
  for (const [key, said] of [
    ['c', '0.6: clear'],
    ['c', '0.5: clear'],
    ['c', '0.4: clear'],
    ['e', '0.3: with effort'],
    ['f', '0.25: fails'],
  ] as const) {
    await page.keyboard.press(key, { delay: HAND_MS });
    await expect(ladder.getByRole('button', { name: `Rings that turn ${said}` })).toBeVisible();
  }
  await page
    .getByRole('button', { name: /: works with effort$/ })
    .first()
    .click();
  await expectAccessible(page);
  // What was said is kept: it stands there after the page is read again.
  await open(page, `${bench.study}/measure/ladders?specimen=${value}`);
  await expect(ladder.getByRole('button', { name: 'Rings that turn 0.25: fails' })).toBeVisible();
  await open(page, `${bench.study}/results/limits`);
  await expect(page.getByRole('region', { name: /Rings that turn/ })).toContainText('limit');
  await expectAccessible(page);
});

test('on a phone the limits stand beside their steps, and no row of results is four lines high', async ({
  page,
  bench,
}) => {
  await page.setViewportSize({ width: 390, height: 844 });
  for (const station of ['limits', 'accuracy', 'surface', 'speed', 'reliability', 'cost']) {
    await open(page, `${bench.study}/results/${station}`);
    const seen = await page.evaluate(() => ({
      width: document.documentElement.scrollWidth,
      rows: [...document.querySelectorAll('tbody tr')].map(
        (row) => row.getBoundingClientRect().height,
      ),
    }));
    expect(seen.width, station).toBe(390);
    expect(Math.max(...seen.rows), station).toBeLessThan(76);
  }
  await open(page, `${bench.study}/results/limits`);
  // Nothing of a ladder is out of sight.
  const lacking = await page
    .getByRole('table')
    .evaluateAll((tables) =>
      tables.map((table) => table.scrollWidth - (table.parentElement?.clientWidth ?? 0)),
    );
  expect(lacking.length).toBeGreaterThan(3);
  expect(Math.max(...lacking)).toBeLessThanOrEqual(0);
  // The badge alone is seen, and the name is still read aloud.
  await expect(page.getByRole('rowheader', { name: /Gannet X24 tuned/ }).first()).toBeAttached();
  await expectAccessible(page);
});

test('the plate map shows the tilt that is there, and the noise that is none', async ({
  page,
  bench,
}) => {
  await open(page, `${bench.study}/results/accuracy`);
  // Only of what stood in several places: the stair block always stands in the middle.
  const choices = page.getByRole('navigation', { name: 'Dimension' }).getByRole('link');
  await expect(choices).toHaveText([/tile along x/, /tile along y/, /tile thickness/]);
  await choices.filter({ hasText: 'Tile field, tile thickness' }).click();
  const plate = page.getByRole('region', { name: 'Over the plate' });
  const map = (name: RegExp) => plate.getByRole('figure').filter({ hasText: name });
  await expect(map(/Fulmar 38/)).toContainText('it is there (p < 0.001)');
  await expect(map(/Fulmar 38/)).toContainText(/tilt \+5\d along x/);
});

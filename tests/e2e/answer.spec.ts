import { apiOf } from '../support/api';
import { demoFiles, DEMO_SWEEP } from '../support/demo-files';
import { zipped } from '../support/zip';
import { allRead, expect, expectAccessible, HAND_MS, open, settled, test } from './bench';

test('at a glance: rows and contenders are walked by keys, sorted, and opened', async ({
  page,
  bench,
}) => {
  // What a sliced file holds is evidence: read while the page is open, it would be told of across its rows.
  await allRead(bench);
  await open(page, bench.study);
  await expect(page).toHaveURL(/\/results\/glance/);
  await expect(page.getByRole('heading', { name: 'At a glance' })).toBeVisible();
  await expect(page.getByText('Mean deviation: Auklet 19 tuned')).toBeVisible();
  // J goes to the first figure, again to the next; the arrow to the next contender.
  const press = (key: string) => page.keyboard.press(key, { delay: HAND_MS });
  await press('j');
  await expect(page.locator('[data-cell="0 0"]')).toBeFocused();
  await press('j');
  await expect(page.locator('[data-cell="1 0"]')).toBeFocused();
  await press('k');
  await page.keyboard.press('ArrowRight');
  await expect(page.locator('[data-cell="0 1"]')).toBeFocused();
  await page.keyboard.press('Enter');
  const drawer = page.getByRole('complementary', { name: 'Evidence' });
  await expect(drawer).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.locator('[data-cell="0 1"]')).toBeFocused();
  // Sorted by accuracy: the Gannet’s tuned profile is the truest, the stock Petrel comes last.
  await press('s');
  const heads = page.locator('thead th a');
  await expect(heads.first()).toContainText('Gannet X24');
  await expect(heads.last()).toContainText('Petrel G27');
  await page.getByRole('button', { name: 'In the order of the line-up' }).click();
  await expect(heads.first()).toContainText('Auklet 19');
  // A group is folded to its first figure; a figure is left out.
  await page.getByRole('button', { name: 'Surface', expanded: true }).click();
  await expect(page.getByRole('button', { name: /^post-processing per part/ })).toHaveCount(0);
  await page.getByRole('button', { name: 'Choose figures' }).click();
  await page.getByLabel('surface index').uncheck();
  await expect(page.getByRole('button', { name: 'surface index', exact: true })).toHaveCount(0);
  await expectAccessible(page);
  // What is chosen stays with the browser.
  await page.reload();
  await expect(page.getByRole('button', { name: 'surface index', exact: true })).toHaveCount(0);
  // H opens the two side by side.
  await page.locator('[data-row="accuracy_mm"][data-contender="B-stock"]').focus();
  await press('h');
  await expect(page).toHaveURL(/head-to-head\?of=B-stock&with=A-stock/);
});

test('at a glance on a phone: one contender beside the reference', async ({ page, bench }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await open(page, `${bench.study}/results/glance`);
  const shown = page.locator('thead th a:visible');
  await expect(shown).toHaveCount(2);
  await page.getByLabel('beside the reference').selectOption('C-stock');
  await expect(shown.last()).toContainText('Petrel G27');
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
});

test('head to head says where each is better, what differs, and whether it is fair', async ({
  page,
  bench,
}) => {
  await open(page, `${bench.study}/results/head-to-head?of=A-tuned&with=B-tuned`);
  await expect(page.getByText('is better than Auklet 19 tuned in')).toBeVisible();
  await expect(page.getByRole('row', { name: /mean deviation/ })).toContainText(
    'indistinguishable',
  );
  await expect(page.getByRole('row', { name: /price paid/ })).toContainText('689');
  await expect(page.getByRole('row', { name: /speed outer wall/ })).toContainText('180');
  await expect(page.getByRole('region', { name: 'Is it fair?' })).toContainText('Confounded');
  await expectAccessible(page);
  await page.setViewportSize({ width: 390, height: 844 });
  const accuracy = page.getByRole('row', { name: /mean deviation/ });
  await expect(accuracy.getByRole('rowheader')).toContainText('indistinguishable');
  expect((await accuracy.boundingBox())?.height).toBeLessThan(90);
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.getByLabel('compared with').selectOption('A-stock');
  await page.getByRole('button', { name: 'Compare' }).click();
  await expect(
    page.getByText('Auklet 19 tuned is better than Auklet 19 stock in mean deviation'),
  ).toBeVisible();
});

test('machine or profile: in words first, the table folded away', async ({ page, bench }) => {
  await open(page, `${bench.study}/results/machine-or-profile`);
  const accuracy = page.getByRole('region', { name: 'Accuracy' });
  await expect(accuracy).toContainText('what the profile does depends on the machine');
  await expect(accuracy).toContainText('Auklet 19 tuned is better than its stock');
  await expect(accuracy).toContainText(
    'That Gannet X24 tuned is better than its stock is not shown',
  );
  await expect(accuracy).toContainText('Fulmar 38 is left out: no print of a tuned profile');
  await expect(accuracy.getByRole('row', { name: /machine × profile/ })).toBeHidden();
  await accuracy.getByText(/Analysis of variance/).click();
  await expect(accuracy.getByRole('row', { name: /machine × profile/ })).toContainText('< 0.0005');
  await expectAccessible(page);
});

/** What the price weighs on a card of the bench's study. */
async function weightOfPrice(bench: { study: string }, card: string): Promise<number | undefined> {
  const address = bench.study.replace('/studies/', '/api/v1/studies/');
  const { scorecard, scorecards } = (await (await fetch(address)).json()) as Record<
    'scorecard' | 'scorecards',
    unknown
  >;
  const cards = [scorecard, scorecards].flat() as {
    name?: string;
    criteria: { key: string; weight: number }[];
  }[];
  const found = cards.find((one) => one?.name === card);
  return found?.criteria.find(({ key }) => key === 'price')?.weight;
}

test('a new user makes a card of their own and has the answer in words', async ({
  page,
  bench,
}) => {
  await open(page, bench.study);
  await page.getByRole('link', { name: 'Scorecard' }).click();
  const answer = page.getByRole('region', { name: 'The answer', exact: true });
  await expect(answer).toContainText('Best for our clip bench so far: Gannet X24 tuned');
  await page.getByRole('button', { name: 'a first machine' }).click();
  await expect(answer).toContainText(/Best for a first machine.*Auklet 19 tuned/);
  // A card of one’s own: another name, the price weighs everything else down.
  await page.getByRole('button', { name: '+ card' }).click();
  await page.getByLabel('this card is for').fill('a poor student');
  await page.getByLabel('this card is for').press('Enter');
  await expect(answer).toContainText('for a poor student');
  const weight = page.getByRole('slider', { name: 'Weight of price' });
  await weight.focus();
  await weight.press('End');
  await expect(weight).toHaveValue('100');
  await expect(page.getByRole('region', { name: 'Turning price' })).toBeVisible();
  await expect(page.getByText('saved', { exact: true })).toBeVisible();
  await expectAccessible(page);
  // It stands there for everybody, and its answer is the program’s own.
  await page.reload();
  await page.getByRole('button', { name: 'a poor student' }).click();
  await expect(answer).toContainText(/Best for a poor student.*Auklet 19/);
  // What is changed in the moment before one goes elsewhere is kept too.
  await weight.press('ArrowLeft');
  await page.getByRole('link', { name: 'Speed' }).click();
  await page.waitForURL(/results\/speed/);
  // It is on its way while the next page is there already.
  await expect.poll(() => weightOfPrice(bench, 'a poor student')).toBe(99);
  await open(page, `${bench.study}/results/scorecard`);
  await page.getByRole('button', { name: 'a poor student' }).click();
  await expect(weight).toHaveValue('99');
  await page.getByRole('button', { name: 'Delete scorecard' }).click();
  await expect(page.getByRole('button', { name: 'a poor student' })).toHaveCount(0);
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(page.getByRole('button', { name: 'a poor student' })).toBeVisible();
  await page.getByRole('button', { name: 'a poor student' }).click();
  await page.getByRole('button', { name: 'Delete scorecard' }).click();
  await expect(page.getByText('saved', { exact: true })).toBeVisible();
});

test('a value curve is moved by keys, typed, and never folds back', async ({ page, bench }) => {
  await open(page, `${bench.study}/results/scorecard`);
  await page.getByRole('button', { name: '+ card' }).click();
  const curve = page.getByRole('group', { name: 'What price is worth' });
  const point = curve.getByRole('slider', { name: 'Point 1 of 2' });
  const before = await point.getAttribute('aria-valuetext');
  await point.focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowDown');
  await expect(point).not.toHaveAttribute('aria-valuetext', before ?? '');
  await expect(point).toHaveAttribute('aria-valuenow', '0.95');
  // Typed so that it folds back: said at the field, and the curve stays.
  const row = page.getByRole('listitem').filter({ has: curve });
  await row.getByRole('button', { name: 'type' }).click();
  await row.getByLabel('Value of point 1').fill('900');
  await row.getByLabel('Value of point 1').press('Enter');
  await expect(row.getByRole('alert')).toContainText(
    'The values must ascend: 800 comes after 900.',
  );
  await row.getByLabel('Value of point 1').fill('300');
  await row.getByLabel('Value of point 1').press('Enter');
  await expect(row.getByRole('alert')).toHaveCount(0);
  // All weights 0: asked about, nothing kept.
  for (const slider of await page.getByRole('slider', { name: /^Weight of/ }).all()) {
    await slider.press('Home');
  }
  await expect(page.getByRole('alert')).toContainText(
    'All weights are 0: at least one must count.',
  );
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('alert')).toHaveCount(0);
  await page.getByRole('button', { name: 'Delete scorecard' }).click();
  await expect(page.getByText('saved', { exact: true })).toBeVisible();
});

test('a condition puts out who fails it, and a mark by hand is weighed', async ({
  page,
  bench,
}) => {
  await open(page, `${bench.study}/results/scorecard`);
  await page.getByRole('button', { name: '+ card' }).click();
  await page.getByRole('button', { name: '+ condition' }).click();
  await page.getByLabel('figure').selectOption('price');
  await page.getByRole('textbox', { name: 'EUR' }).fill('600');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  const answer = page.getByRole('region', { name: 'The answer', exact: true });
  await expect(answer.getByText('Excluded: fails price')).toHaveCount(2);
  await page.getByRole('button', { name: /^No longer: price/ }).click();
  await expect(answer.getByText('Excluded: fails price')).toHaveCount(0);
  await page.getByRole('button', { name: 'Delete scorecard' }).click();
  await expect(page.getByText('saved', { exact: true })).toBeVisible();
  const marks = page.getByRole('region', { name: 'Marks by hand' });
  await marks.getByLabel('aspect').selectOption('looks');
  await marks.getByLabel('mark 0–10').fill('12');
  await marks.getByLabel('in words').fill('clear, and quick to answer');
  await marks.getByRole('button', { name: 'Save mark' }).click();
  await expect(marks).toContainText('A mark is from 0 to 10, not “12”.');
  await marks.getByLabel('mark 0–10').fill('8');
  await marks.getByRole('button', { name: 'Save mark' }).click();
  await expect(marks.getByText('clear, and quick to answer')).toBeVisible();
  await expect(page.getByLabel('Add a criterion')).toContainText('looks, mark 0–10');
  // The cards are filled in anew, and the page is read again: it must answer before it is asked.
  await settled(page);
  const own = marks.getByRole('listitem').filter({ hasText: 'clear, and quick to answer' });
  await own.getByRole('button', { name: 'take back' }).click();
  await expect(page.getByLabel('Add a criterion')).not.toContainText('looks, mark 0–10');
});

test('a sweep says how far a speed can be taken, and is set up from one contender', async ({
  page,
  bench,
}) => {
  // The package without its pictures: their figures travel in its tables.
  const files = demoFiles(DEMO_SWEEP);
  const plain = new Map([...files].filter(([path]) => !path.startsWith('photos/')));
  const { status, content } = await apiOf(() => bench.url).call('PUT', '/imports', zipped(plain), {
    'content-type': 'application/zip',
    origin: bench.url,
  });
  expect(status).toBe(201);
  await open(page, `${bench.url}/studies/${String(content.study_id)}/results/sweep`);
  await expect(page.getByText('can go to 200 mm/s without loss against 120 mm/s')).toBeVisible();
  await expect(page.getByText('240 mm/s is worse in surface index and ringing')).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('link', { name: /^Question/ }).click();
  await page.waitForURL(/question/);
  await settled(page);
  const steps = page.getByRole('region', { name: 'A setting in steps' });
  await expect(steps).toContainText('120 → 160 → 200 → 240 → 280');
  await steps.getByLabel(/steps, the safe end first/).fill('120 200 160');
  await steps.getByRole('button', { name: 'Set the steps up' }).click();
  await expect(steps.getByRole('alert')).toContainText('all go one way: 160 comes after 200');
  await steps.getByLabel(/steps, the safe end first/).fill('120 160');
  await steps.getByRole('button', { name: 'Set the steps up' }).click();
  await expect(steps.getByRole('alert')).toContainText('at least three steps');
  // A field of the question leaves what stands beside it as it is.
  await page.getByLabel(/^print time/).fill('6');
  await page.getByLabel(/^print time/).press('Tab');
  const kept = async () => {
    const answer = await fetch(`${bench.url}/api/v1/studies/${String(content.study_id)}`);
    return ((await answer.json()) as { smallest_difference: object }).smallest_difference;
  };
  await expect.poll(kept).toMatchObject({
    time_pct: 6,
    accuracy_mm: 0.03,
    surface: 5,
    'photo:echo-wall/ringing/raking-left/x': 0.01,
  });
});

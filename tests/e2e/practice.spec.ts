import { expect, expectAccessible, open, settled, test } from './bench';

test('a first study is led through ten steps, from the question to its answer', async ({
  page,
  bench,
}) => {
  const guide = page.getByRole('region', { name: 'Guide to the practice study' });
  const isAtStep = (step: number) =>
    expect(guide.getByRole('heading')).toContainText(`step ${step} of 10`);
  const goTo = async (station: RegExp) => {
    await guide.getByRole('link', { name: 'Go there' }).click();
    await page.waitForURL(station);
    await settled(page);
  };
  await open(page, bench.url);
  await page.getByRole('button', { name: 'Start practice study' }).click();
  await page.waitForURL(/question/);
  await settled(page);
  await isAtStep(1);
  await guide.getByRole('link', { name: 'Show the field' }).click();
  // The cursor is in the field.
  await page.keyboard.type('Which profile prints holes closer to size?');
  await page.keyboard.press('Tab');
  await isAtStep(2);
  await page.getByLabel('accuracy (mm)').fill('0.05');
  await page.keyboard.press('Enter');
  await isAtStep(3);
  // The checklist names what is missing, too.
  await page.getByRole('button', { name: /2\/3 Question, something is missing/ }).click();
  const checklist = page.locator('#checklist');
  await expect(checklist.getByRole('link', { name: 'Add at least two contenders' })).toBeVisible();
  await expectAccessible(page);
  await page.keyboard.press('Escape');

  await goTo(/line-up/);
  const add = async (what: string, name: string) => {
    await page.getByRole('combobox', { name: `Add ${what}` }).fill(name);
    const answered = page.waitForResponse((answer) => answer.request().method() === 'POST');
    await page.keyboard.press('Enter');
    expect((await answered).status()).toBe(201);
    await page.waitForLoadState('load');
    await settled(page);
  };
  await add('a machine', 'Curlew One');
  await add('a machine', 'Dunlin Two');
  // The first contender is the reference until another one is chosen.
  await isAtStep(5);
  await add('a material', 'WPC');
  await add('an artefact', 'First cube');
  await page.getByRole('link', { name: 'First cube' }).click();
  await page.waitForURL(/artefacts\/first-cube/);
  await settled(page);
  await page.getByRole('button', { name: 'Add dimension' }).click();
  const form = page.getByRole('form', { name: 'New dimension' });
  await form.getByLabel(/^name/).fill('width');
  await form.getByLabel(/^axis/).selectOption('x');
  await form.getByLabel(/^kind/).selectOption('external');
  await form.getByLabel(/nominal/).fill('20');
  await form.getByRole('button', { name: 'Add dimension' }).click();
  await isAtStep(6);

  await goTo(/plan/);
  for (const repeats of await page.getByLabel(/^Repeats: /).all()) {
    await repeats.fill('3');
    await repeats.press('Tab');
  }
  await isAtStep(7);
  await goTo(/runs/);
  for (let print = 1; print <= 6; print += 1) {
    await page.keyboard.press('s');
    const panel = page.getByRole('dialog');
    await panel.getByRole('button', { name: 'It is over already' }).click();
    await panel.getByLabel('outcome').selectOption('success');
    await panel.getByRole('button', { name: 'Save print' }).click();
    await expect(panel).toBeHidden();
    await expect(page.getByRole('button', { name: new RegExp(`^${print}/6 Runs`) })).toBeVisible();
  }
  await isAtStep(8);
  await goTo(/measure/);
  const readings = { curlew: ['20.03', '20.05', '20.04'], dunlin: ['20.14', '20.11', '20.13'] };
  for (let part = 1; part <= 6; part += 1) {
    const specimen = page.getByRole('main').locator('button[aria-current=true][data-hint]');
    const isCurlew = (await specimen.getAttribute('aria-label'))?.includes('Curlew') ?? false;
    const value = (isCurlew ? readings.curlew : readings.dunlin).shift() ?? 'none left';
    await page.keyboard.type(value);
    await page.keyboard.press('Enter');
    await expect(page.getByRole('row', { name: /width/ })).toContainText(value);
    await page.keyboard.press('Control+Enter');
  }
  await isAtStep(9);
  await goTo(/results\/accuracy/);
  // Deviations of 0.04 and 0.127 mm: the second machine is worse, beyond its interval.
  await expect(page.getByRole('main')).toContainText(/worse/);
  await page
    .getByRole('navigation', { name: 'Stations' })
    .getByRole('link', { name: 'Report' })
    .click();
  await page.waitForURL(/report/);
  await settled(page);
  await page.getByLabel('New sentence: The answer').fill('Curlew One prints closer to size.');
  await page.keyboard.press('Enter');
  await isAtStep(10);
  await guide.getByRole('button', { name: 'Archive practice study' }).click();
  await expect(guide.getByRole('heading')).toContainText('all ten steps are done');
});

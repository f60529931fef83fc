import type { Page } from '@playwright/test';
import { allLaid, expect, expectAccessible, HAND_MS, open, test } from './bench';

/** Keys as a hand types them; a scanner is many times faster, and its keys are no answers. */
async function press(page: Page, ...keys: string[]) {
  for (const key of keys) {
    await page.keyboard.press(key, { delay: HAND_MS });
  }
}

/** The inspection page as an inspector of that name has it, on the first specimen. */
async function inspectAs(page: Page, study: string, initials: string) {
  await open(page, `${study}/inspect`);
  await page.getByLabel('at the bench').fill(initials);
  await expect(page.getByRole('list', { name: 'Zones' })).toBeVisible();
  await page.getByRole('heading', { name: 'Inspect' }).click();
  // What was said before is there: the keys count from now on.
  await expect(page.locator('section[aria-busy="false"]')).toBeVisible();
}

test('zones are graded at the keyboard, kept, and taken back', async ({ page, bench }) => {
  await open(page, `${bench.study}/inspect`);
  await expect(page.getByText('Who inspects?')).toBeVisible();
  await inspectAs(page, bench.study, 'ZQ');
  const zones = page.getByRole('list', { name: 'Zones' }).getByRole('button');
  await expect(zones.first()).toContainText('not looked at');
  // Two defects in the first zone, the second clean, the third by a letter of its second word.
  await press(page, 'r', 'i', '3', 's', 't', '2');
  await expect(zones.first()).toContainText('ringing 3, stringing 2');
  await press(page, 'Enter', 'c');
  await expect(zones.nth(1)).toContainText('clean');
  await press(page, 'b', 'l', 'e', '1');
  await expect(zones.nth(2)).toContainText('colour bleed 1');
  await expect(page.getByText('3 of 4 zones looked at by ZQ')).toBeVisible();
  await expectAccessible(page);
  // The last word is taken back; the grade of a defect that is there is graded anew.
  await press(page, 'Backspace');
  await expect(zones.nth(2)).toContainText('not looked at');
  await zones.first().click();
  await press(page, 'r', 'i', '1');
  await expect(zones.first()).toContainText('ringing 1, stringing 2');
  await page.getByLabel('Cause of ringing').selectOption('machine');
  await page.getByLabel('Note on ringing').fill('behind both corners');
  await page.getByRole('heading', { name: 'Inspect' }).click();
  await expect(page.getByLabel('Note on ringing')).toHaveValue('behind both corners');
  // It stands there when the page is read again, and another inspector does not see it.
  await inspectAs(page, bench.study, 'ZQ');
  await expect(zones.first()).toContainText('ringing 1, stringing 2');
  await expect(page.getByLabel('Cause of ringing')).toHaveValue('machine');
  await page.getByLabel('at the bench').fill('ZR');
  await expect(zones.first()).toContainText('not looked at');
});

test('twenty zones are graded by two keys each, and three more for a finding', async ({
  page,
  bench,
}) => {
  await inspectAs(page, bench.study, 'ZT');
  let keys = 0;
  const type = async (...own: string[]) => {
    keys += own.length;
    await press(page, ...own);
  };
  for (let zone = 0; zone < 20; zone += 1) {
    const at = await page.locator('#present-zone').textContent();
    const specimen = await page.getByLabel('Specimen').inputValue();
    if (zone % 3 === 0) await type('s', 't', '2', 'Enter');
    else await type('c');
    // The next zone is there at once, of the next specimen where this one has no more.
    await expect
      .poll(async () => [
        await page.locator('#present-zone').textContent(),
        await page.getByLabel('Specimen').inputValue(),
      ])
      .not.toEqual([at, specimen]);
  }
  // At two seconds a key, twenty zones are graded in well under three minutes.
  expect(keys * 2).toBeLessThan(180);
  const api = bench.study.replace('/studies/', '/api/v1/studies/');
  const kept = async () => {
    const answer = await fetch(`${api}/inspections?inspector=ZT`);
    const said = (await answer.json()) as { inspections: object[]; findings: object[] };
    return [said.inspections.length, said.findings.length];
  };
  await expect.poll(kept).toEqual([20, 7]);
});

test('a finding is boxed on the specimen’s photo, and hands are timed', async ({ page, bench }) => {
  const api = bench.study.replace('/studies/', '/api/v1/studies/');
  const get = async (path: string) => (await fetch(`${api}${path}`)).json() as Promise<unknown>;
  await allLaid(bench);
  await open(page, `${bench.study}/inspect?specimen=K7-081`);
  await page.getByLabel('at the bench').fill('ZB');
  await page.getByRole('heading', { name: 'Inspect' }).click();
  await expect(page.locator('section[aria-busy="false"]')).toBeVisible();
  await press(page, 'r', 'i');
  // The card: how every grade of this defect looks.
  for (const grade of [0, 1, 2, 3, 4]) {
    await expect(page.locator(`[data-look="ringing ${grade}"]`)).toBeVisible();
  }
  await press(page, '2');
  const photo = page.getByRole('img', { name: 'photo of wall with corners' });
  const box = await photo.boundingBox();
  if (!box) throw new Error('the photo has no place on the page');
  await page.keyboard.down('Shift');
  await page.mouse.move(box.x + box.width * 0.3, box.y + box.height * 0.4);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width * 0.5, box.y + box.height * 0.6, { steps: 4 });
  await page.mouse.up();
  await page.keyboard.up('Shift');
  await expect
    .poll(async () => (await get('/inspections?inspector=ZB')) as { findings: object[] })
    .toMatchObject({
      findings: [
        {
          defect: 'ringing',
          grade: 2,
          view: 'front',
          path: 'photos/K7-081-front-raking-left.jpg',
          w_mm: expect.any(Number),
        },
      ],
    });
  // The clock goes on when the page is left, and keeps what it counted when it is stopped.
  await page.getByLabel('what is done').selectOption('strings');
  await page.getByRole('heading', { name: 'Inspect' }).click();
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: /Stop · 0:0[1-9]/ })).toBeVisible();
  await open(page, `${bench.study}/inspect?specimen=K7-081`);
  await expect(page.getByLabel('what is done')).toHaveValue('strings');
  await page.getByRole('heading', { name: 'Inspect' }).click();
  await page.keyboard.press('Space');
  const own = async () =>
    ((await get('/rows/aftercare')) as { specimen_id: string; operator: string; minutes: number }[])
      .filter((row) => row.specimen_id === 'K7-081' && row.operator === 'ZB')
      .map((row) => row.minutes > 0.01);
  await expect.poll(own).toEqual([true]);
  await expectAccessible(page);
});

test('what is due and where inspectors differ is shown, and graded anew from there', async ({
  page,
  bench,
}) => {
  await open(page, `${bench.study}/inspect/agreement`);
  await expect(page.getByText('Enter your initials at the top right')).toBeVisible();
  await page.getByLabel('at the bench').fill('KM');
  const due = page.getByRole('region', { name: 'What is due' });
  // The demo's two inspectors have left out the letters of one wall.
  await expect(due.getByRole('listitem').filter({ hasText: 'KM' })).toContainText('57/58');
  const rows = page.getByRole('region', { name: /disagreement/ }).getByRole('row');
  const first = rows.nth(1);
  await expect(first).toContainText(/K7-\d+/);
  const zone = await first.getByRole('cell').first().textContent();
  await first.getByRole('link').click();
  await expect(page.getByRole('heading', { level: 2, name: new RegExp(`^${zone}`) })).toBeVisible();
});

test('surface results say where it shows, and what it rests on', async ({ page, bench }) => {
  await open(page, `${bench.study}/results/surface`);
  await expect(page.getByRole('heading', { name: 'Surface', exact: true })).toBeVisible();
  const matrix = page.getByRole('region', { name: 'Where it shows' });
  const corners = matrix.getByRole('row', { name: /wall with corners/ });
  await expect(corners).toContainText('ringing');
  await expect(page.getByText(/inspectors graded \d+ zones alike to α = 0\.\d\d/)).toBeVisible();
  await expectAccessible(page);
  await corners
    .getByRole('button', { name: /ringing/ })
    .first()
    .click();
  const drawer = page.getByRole('complementary').or(page.getByRole('dialog'));
  await expect(drawer.getByText('Specimens, the worst first')).toBeVisible();
  await expectAccessible(page);
});

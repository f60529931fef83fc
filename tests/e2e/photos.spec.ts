import { drawn, jpegOf } from '../support/photos';
import { allLaid, expect, expectAccessible, HAND_MS, open, test } from './bench';

/** The echo wall before a plain ground: 120 × 60 mm at 8 px/mm, a little turned, in its own grey. */
async function wallPhoto(grey: number, code: string | null = null) {
  const [width, height] = [1200, 800];
  const isPart = (x: number, y: number) => {
    const [dx, dy] = [x - 600, y - 350];
    return Math.abs(dx + 0.02 * dy) < 480 && Math.abs(dy - 0.02 * dx) < 240;
  };
  const codes = code === null ? [] : [{ text: code, left: 900, top: 630, module: 5 }];
  const data = drawn(width, height, (x, y) => (isPart(x, y) ? grey : 210), codes);
  return {
    name: `wall-${grey}.jpg`,
    mimeType: 'image/jpeg',
    buffer: await jpegOf(data, width, height),
  };
}

test('on a phone: from a specimen’s page to three filed photos tied to their view', async ({
  page,
  bench,
}) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await open(page, `${bench.study}/inspect/photos?specimen=K7-100`);
  const filed = page.getByRole('region', { name: /photos? filed$/ }).getByRole('button');
  const before = await filed.count();
  await page.getByLabel('they show').selectOption('front');
  await page.getByLabel(/^lit/).selectOption('raking-right');
  await page
    .getByLabel('Photos', { exact: true })
    .setInputFiles([await wallPhoto(60), await wallPhoto(63), await wallPhoto(66)]);
  await expect(filed).toHaveCount(before + 3);
  for (const photo of [before, before + 1, before + 2]) {
    await filed.nth(photo).click();
    await page.getByRole('button', { name: 'Find the part' }).click();
    const marks = page.getByRole('region', { name: 'Marks' });
    await expect(marks).toContainText('proposed from the part’s outline');
    await expect(marks).toContainText(/4 marks · 8\.\d px\/mm/);
    await page.getByRole('button', { name: 'Keep the marks' }).click();
    await expect(page.getByRole('button', { name: 'Keep the marks' })).toBeDisabled();
  }
  await expect(page.getByText('not tied')).toHaveCount(0);
  await expectAccessible(page);
  // A photo of a session has one button more.
  await allLaid(bench);
  await open(page, `${bench.study}/inspect/photos?specimen=K7-048`);
  await expect(page.getByRole('button', { name: /Carry its marks over/ })).toBeVisible();
  const across = await page.evaluate(() => document.documentElement.scrollWidth);
  expect(across).toBeLessThanOrEqual(390);
});

test('photos file themselves by their sticker, or with a key each', async ({ page, bench }) => {
  await open(page, `${bench.study}/inspect/photos`);
  const tray = page.getByRole('region', { name: /to be filed$/ });
  await page
    .getByLabel('Photos', { exact: true })
    .setInputFiles([await wallPhoto(70, 'K7-063'), await wallPhoto(74)]);
  const known = tray.getByRole('button', { name: /K7-063 · which view\? which light\?/ });
  await expect(known).toBeVisible();
  await known.click();
  await page.getByRole('heading', { name: 'K7-063' }).click();
  // One key for the view, one for the light: then it is filed.
  await page.keyboard.press('f', { delay: HAND_MS });
  await expect(tray.getByRole('button', { name: /K7-063 · which light\?/ })).toBeVisible();
  await page.keyboard.press('Shift+Digit4', { delay: HAND_MS });
  await expect(known).toHaveCount(0);
  await expect(page.getByRole('button', { name: /raking top/ })).toHaveAttribute(
    'aria-pressed',
    'true',
  );
  // The other shows no sticker: the next specimen is proposed, and taken with a key.
  await tray.getByRole('button', { name: /wall-74/ }).click();
  await page.getByRole('heading', { name: 'Of which specimen?' }).click();
  await page.keyboard.press('s', { delay: HAND_MS });
  await expect(page.getByRole('heading', { name: /K7-\d+$/ })).toBeVisible();
  // What is no photo says so, and stays in nobody’s way.
  await page.getByLabel('Photos', { exact: true }).setInputFiles({
    name: 'drawing.svg',
    mimeType: 'image/svg+xml',
    buffer: Buffer.from('<svg onload="alert(1)"/>'),
  });
  await expect(page.getByRole('alert')).toContainText('JPEG, PNG or WebP');
  await page.getByRole('button', { name: 'dismiss' }).click();
  await allLaid(bench);
  // A mark is moved under the loupe by arrows, the tie says so, and taking all out unties.
  await page
    .getByRole('button', { name: /K7-048 · front/ })
    .first()
    .click();
  const marks = page.getByRole('region', { name: 'Marks' });
  await expect(marks).toContainText(/4 marks · 2\d\.\d px\/mm/);
  await page.getByRole('heading', { name: 'Tied to the view' }).click();
  const keep = page.getByRole('button', { name: 'Keep the marks' });
  await expect(keep).toBeDisabled();
  await page.keyboard.press('ArrowRight');
  await expect(keep).toBeEnabled();
  await page.keyboard.press('ArrowLeft');
  await expect(keep).toBeDisabled();
});

test('the same place of every contender is moved, hidden and measured together', async ({
  page,
  bench,
}) => {
  await allLaid(bench);
  await open(page, `${bench.study}/inspect/side-by-side`);
  await page.getByLabel('What is compared').selectOption('echo-wall/front/raking-left');
  const windows = page.locator('canvas');
  await expect(windows).toHaveCount(6);
  await expect(page.getByRole('figure').first()).toContainText('Auklet 19');
  await page.getByRole('heading', { name: 'Side by side' }).click();
  const place = () => new URLSearchParams(new URL(page.url()).hash.slice(1));
  await expect.poll(() => Number(place().get('px'))).toBeGreaterThan(0);
  const [px, x] = [Number(place().get('px')), Number(place().get('x'))];
  await page.keyboard.press('+');
  await expect.poll(() => Number(place().get('px'))).toBeCloseTo(1.25 * px, 1);
  await page.keyboard.press('ArrowRight');
  await expect.poll(() => Number(place().get('x'))).toBeGreaterThan(x);
  await expectAccessible(page);
  // Names hidden: nothing on the page tells whose photo it is, and nothing is measured.
  await page.keyboard.press('b', { delay: HAND_MS });
  await expect(page.getByRole('img', { name: 'Echo wall, front: photo 1' })).toBeVisible();
  const main = page.getByRole('main');
  await expect(main.getByText(/Auklet|K7-048|Hz/)).toHaveCount(0);
  await expect(page.getByRole('button', { name: /Measure on all/ })).toBeDisabled();
  await page.keyboard.press('b', { delay: HAND_MS });
  // Blink shows one after another, split and difference two in one window.
  await page.keyboard.press('Space');
  await expect(windows).toHaveCount(1);
  const shown = page.getByRole('figure');
  await expect(shown).toContainText('stock');
  await page.keyboard.press('Space');
  await expect(shown).toContainText('tuned');
  await page.keyboard.press('\\');
  await expect(page.getByLabel('Where the second photo begins')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(windows).toHaveCount(6);
  // A stock rings at its speed, B does not: the demo's own measures, and the same region again.
  const figures = page.getByRole('region', { name: 'Measured in place' });
  await expect(figures.getByRole('row', { name: /A-stock/ }).first()).toContainText(
    /ringing along x .*wave 1\.5\d mm · 63 Hz/,
  );
  const rows = figures.getByRole('row', { name: /^B-stock/ });
  await expect(rows.first()).toContainText('no ringing along x above the noise');
  const before = await rows.count();
  await figures.getByRole('button', { name: '-52, 6, 26, 18 mm' }).first().click();
  await page.getByRole('heading', { name: 'Side by side' }).click();
  await page.keyboard.press('m', { delay: HAND_MS });
  await expect(rows).toHaveCount(before + 1);
  await expect(rows.last()).toContainText('no ringing along x above the noise');
  // The address holds the place: whoever opens it sees the same.
  const there = page.url();
  await page.goto('about:blank');
  await open(page, there);
  await expect(page.getByLabel('What is compared')).toHaveValue('echo-wall/front/raking-left');
  await expect(windows).toHaveCount(6);
  // Two of them stand beside each other head to head.
  await open(page, `${bench.study}/results/head-to-head?of=A-tuned&with=B-tuned`);
  const same = page.getByRole('region', { name: 'The same place on every contender' });
  await expect(
    same.getByRole('img', { name: /Echo wall, front, light from the left/ }),
  ).toHaveCount(2);
});

test('the scale card says its own size in every corner', async ({ page, bench }) => {
  await open(page, `${bench.study}/scale-card`);
  await expect(page.locator('[data-corner]')).toHaveCount(4);
  await expect(page.getByRole('img', { name: 'Scale card 200 × 140 mm' })).toBeVisible();
  await expectAccessible(page);
});

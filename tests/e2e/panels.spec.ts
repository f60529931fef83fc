import type { Browser, Page } from '@playwright/test';
import { allLaid, expect, expectAccessible, open, settled, test } from './bench';

// Other tests count what stands in the results of the demo.
test.use({ ownBench: 'panels' });

/** A judge's phone: a browser of its own, with a finger. */
async function phone(browser: Browser, link: string): Promise<Page> {
  const context = await browser.newContext({
    viewport: { width: 390, height: 760 },
    hasTouch: true,
    isMobile: true,
  });
  const page = await context.newPage();
  await open(page, link);
  return page;
}

/** Answers every question by what is given, then the panel says thank you. */
async function judge(page: Page, answers: readonly string[]) {
  for (const [at, answer] of answers.entries()) {
    await expect(page.getByText(`${at + 1} of ${answers.length}`)).toBeVisible();
    await expect(page.getByRole('img').first()).toBeVisible();
    await page.keyboard.press(answer);
  }
  await expect(page.getByText('Thank you')).toBeVisible();
}

test('a panel of six photos is planned, judged on phones, and revealed', async ({
  page,
  bench,
  browser,
}) => {
  await allLaid(bench);
  await open(page, `${bench.study}/inspect/panels`);
  await expect(page.getByRole('row', { name: /Which block is not like/ })).toContainText('48');
  await page.getByRole('link', { name: 'Plan a panel' }).click();
  await settled(page);
  // Six photos of one place in one light are in it already; a question, and it can be opened.
  await expect(page.getByRole('checkbox', { name: /Fulmar/ })).toBeChecked();
  await page
    .getByLabel('the question, in the judges’ words')
    .fill('Which wall would you rather have?');
  await page.getByLabel('judges', { exact: true }).fill('2');
  await page.getByLabel('questions each').fill('4');
  await page.getByRole('button', { name: 'relief lettering' }).click();
  await page.getByLabel('judges give their initials').check();
  await expect(page.getByText(/Less than one ballot on each pair/)).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Open it for judges' }).click();
  const link = page.getByRole('link', { name: /\/judge\// });
  await expect(link).toBeVisible();
  await expect(page.getByText('0 of 2 judges')).toBeVisible();
  await expect(page.getByRole('img', { name: 'Code that leads judges in' })).toBeVisible();
  await expectAccessible(page);
  const address = (await link.getAttribute('href')) ?? '';

  // One question a page; back one, another answer; a reload goes on where it was.
  const first = await phone(browser, address);
  await expect(
    first.getByRole('heading', { name: 'Which wall would you rather have?' }),
  ).toBeVisible();
  await first.getByLabel('your initials').fill('KM');
  await first.getByRole('button', { name: 'Begin' }).tap();
  await expect(first.getByText('1 of 5')).toBeVisible();
  await expect(first.getByText('you are KM')).toBeVisible();
  await expectAccessible(first);
  await first.getByRole('button', { name: 'larger' }).tap();
  const grown = () =>
    first
      .getByRole('img')
      .evaluateAll((all) => all.map((one) => (one as HTMLElement).style.transform));
  const [left, right] = await grown();
  expect(left).toContain('scale(1.5)');
  expect(right).toBe(left);
  const code = await first.locator('figcaption').first().textContent();
  await first.getByRole('button', { name: code ?? '' }).tap();
  await expect(first.getByText('2 of 5')).toBeVisible();
  await open(first, address);
  await expect(first.getByText('2 of 5')).toBeVisible();
  await first.getByRole('button', { name: '‹ back one' }).tap();
  await expect(first.getByRole('button', { name: `${code} so far` })).toHaveAttribute(
    'aria-pressed',
    'true',
  );
  await judge(first, ['0', '1', '2', '1', '2']);

  // The organiser sees how far they are, not what they say; who looks before the end says why.
  await expect(page.getByText('1 of 2 judges')).toBeVisible();
  await page.getByRole('button', { name: 'Look at the result so far' }).click();
  const look = page.getByRole('dialog').getByRole('button', { name: 'Look at the result so far' });
  await expect(look).toBeDisabled();
  await page.getByRole('dialog').getByLabel('why').fill('to see whether the phones work');
  await expectAccessible(page);
  await look.click();
  await expect(page.getByText('that you did is noted')).toBeVisible();

  // A second judge stops early: what was said counts, and the panel is complete.
  const second = await phone(browser, address);
  await second.getByLabel('your initials').fill('TS');
  await second.getByRole('button', { name: 'Begin' }).tap();
  await second.getByRole('button', { name: 'no difference that I can see' }).tap();
  await expect(second.getByText('2 of 5')).toBeVisible();
  await second.getByRole('button', { name: /Stop here/ }).tap();
  await expect(second.getByText('Your answers count')).toBeVisible();
  const third = await phone(browser, address);
  await expect(third.getByText('This panel is closed.')).toBeVisible();

  // Letters first, then the names.
  await expect(page.getByText('as many judges as were wanted have ended')).toBeVisible();
  const rows = page.locator('table[data-name="preference"] tbody th');
  for (const text of await rows.allTextContents()) expect(text).toMatch(/^[P-Z]$/);
  await page.getByRole('button', { name: 'Reveal names' }).click();
  await expect(page.locator('[data-revealed]')).toContainText('6 ballots of 2 judges');
  // No hand is so quick: nothing is said until somebody has looked at the answers.
  await expect(page.getByText(/No verdict: half of the answers came in under 2 s/)).toBeVisible();
  await page.getByRole('button', { name: 'Confirm the answers' }).click();
  await page.getByRole('dialog').getByLabel('why').fill('the judges were a program');
  await page.getByRole('dialog').getByRole('button', { name: 'Confirm the answers' }).click();
  await expect(rows.filter({ hasText: 'Auklet 19' }).first()).toBeVisible();
  await expect(page.getByText('looked before the end')).toBeVisible();
  await expectAccessible(page);

  // It is evidence now: a figure opens the ballots that it was made of.
  await open(page, `${bench.study}/results/panels`);
  const own = page.getByRole('region', { name: 'Which wall would you rather have?' });
  await expect(own).toContainText('6 ballots of 2 judges');
  await own.locator('[data-figure]').first().click();
  const drawer = page.getByRole('complementary', { name: /.+/ }).filter({ hasText: 'Ballots' });
  // Who was shown it follows from the draw.
  await expect(drawer.getByRole('cell', { name: /^(?:KM|TS)$/ }).first()).toBeVisible();
  await expectAccessible(page);
});

test('parts are laid out by a sheet, and a judge sits down at a place', async ({
  page,
  bench,
  browser,
}) => {
  await open(page, `${bench.study}/inspect/panels/new`);
  await page.getByRole('radio', { name: /Can people see a difference/ }).check();
  await page.getByLabel('the question, in the judges’ words').fill('Which block is the odd one?');
  await page
    .getByLabel('What judges see', { exact: true })
    .selectOption({ label: 'parts: Stair block' });
  for (const name of ['Auklet 19 stock', 'Auklet 19 tuned', 'Petrel', 'Fulmar']) {
    await page.getByRole('checkbox', { name: new RegExp(name) }).uncheck();
  }
  await page.getByLabel('judges', { exact: true }).fill('2');
  await page.getByLabel('questions each').fill('2');
  await page.getByLabel('asked once more').fill('0');
  await page.getByRole('button', { name: 'Save plan' }).click();
  await expect(page).toHaveURL(/panels\/(?!new)/);
  await settled(page);
  await page.getByRole('button', { name: 'Open it for judges' }).click();
  const address = (await page.getByRole('link', { name: /\/judge\// }).getAttribute('href')) ?? '';
  await open(page, `${page.url()}/sheets`);
  await expect(page.getByRole('table')).toContainText('K7-');
  const codes = await page.getByRole('row').nth(3).locator('b').allTextContents();
  await expectAccessible(page);
  const judgePage = await phone(browser, address);
  await judgePage.getByLabel(/your place/).selectOption('2');
  await judgePage.getByRole('button', { name: 'Begin' }).tap();
  await expect(judgePage.getByText('Take the parts on')).toBeVisible();
  // What the sheet lays at place 2 is what is asked there.
  expect(codes).toHaveLength(3);
  await expect(judgePage.getByRole('button', { name: codes[0] ?? '' })).toBeVisible();
  await expectAccessible(judgePage);
  await judgePage.keyboard.press('1');
  await expect(judgePage.getByText('2 of 2')).toBeVisible();
  await judgePage.keyboard.press('3');
  await expect(judgePage.getByText('Thank you')).toBeVisible();
});

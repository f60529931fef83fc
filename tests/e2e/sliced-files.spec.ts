import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import { DEMO } from '../support/demo-files';
import { allRead, expect, expectAccessible, open, settled, test } from './bench';

const demoFile = (name: string): Buffer =>
  gunzipSync(readFileSync(join(DEMO, 'sliced', `${name}.gcode.gz`)));

const plain = (name: string, buffer: Buffer) => ({
  name,
  mimeType: 'application/octet-stream',
  buffer,
});

test('sliced files are looked into, sent, read, matched and confirmed', async ({ page, bench }) => {
  await open(page, `${bench.study}/runs`);
  const input = page.getByLabel('Sliced files', { exact: true }).and(page.locator('input'));
  const changed = Buffer.concat([demoFile('stair-block-B-tuned'), Buffer.from('; a second try\n')]);
  await input.setInputFiles([
    plain('stair-block Gannet X24 tuned.gcode', changed),
    plain('notes.gcode', Buffer.from('; nothing moves\nM104 S200\n')),
    plain('picture.png', Buffer.from('G1 X10 F600\n')),
  ]);
  const onTheWay = page.getByRole('list', { name: 'Files on their way' });
  await expect(onTheWay.getByText(/notes\.gcode/)).toBeVisible();
  await expect(onTheWay).toContainText('not taken: no line of it moves anything');
  await expect(onTheWay).toContainText(/picture\.png is no sliced file/);
  const row = page.getByRole('row', { name: /stair-block-Gannet-X24-tuned\.gcode/ });
  await expect(row.getByRole('combobox', { name: /Contender of/ })).toHaveValue('B-tuned', {
    timeout: 30_000,
  });
  await expect(row.getByRole('combobox', { name: /Artefact of/ })).toHaveValue('stair-block');
  await expect(row).toContainText('430');
  await row.getByRole('button', { name: 'Confirm' }).click();
  await expect(row.getByRole('combobox')).toHaveCount(0);

  // The same content again is known by its hash, whatever its name.
  await input.setInputFiles([plain('another-name.gcode', changed)]);
  await expect(onTheWay).toContainText(
    'it is here already, as sliced/stair-block-Gannet-X24-tuned.gcode',
  );

  await row.getByRole('link').click();
  await settled(page);
  await expect(page.getByText(/Claimed 430 mm\/s: the file asks for 430 mm\/s/)).toBeVisible();
  await expect(
    page.getByRole('figure').filter({ hasText: 'Flow through the nozzle' }),
  ).toContainText('limit of 26.0 mm³/s');
  await expect(page.locator('.apexcharts-canvas')).toHaveCount(3);
  await expect(page.getByRole('row', { name: /^infill pattern grid/ })).toBeVisible();
  await expectAccessible(page);
});

test('the confounded pair is named, compared and accepted with a reason', async ({
  page,
  bench,
}) => {
  const files = ['A-stock', 'A-tuned'].map(
    (contender) => `file=${encodeURIComponent(`sliced/echo-wall-${contender}.gcode.gz`)}`,
  );
  await allRead(bench);
  await open(page, `${bench.study}/compare?${files.join('&')}`);
  await expect(page.getByText(/These prints are not of the same part/)).toBeVisible();
  await expect(page.getByRole('row', { name: /must be equal.*top layers/ })).toContainText('6');
  await expectAccessible(page);

  await open(page, `${bench.study}/line-up`);
  await page.getByRole('button', { name: 'Echo wall, Auklet 19 tuned: confounded' }).click();
  const check = page.getByRole('region', { name: 'Fairness check' });
  await expect(
    check.getByText(
      /top layers \(6 against 5\), slicing program \(Strake against Lathe-and-Layer\) and version/,
    ),
  ).toBeVisible();
  const changes = page.getByRole('region', { name: 'What the tuned profiles change' });
  await expect(changes).toContainText('5 of 16 known settings other than Auklet, as shipped');
  await page
    .getByRole('row', { name: /^top layers/ })
    .getByRole('button', { name: 'accept …' })
    .click();
  await page
    .getByLabel('Reason to accept that top layers differs')
    .fill('the top is not looked at');
  await page.keyboard.press('Enter');
  await expect(page.getByText('accepted: the top is not looked at')).toBeVisible();
  await open(page, `${bench.study}/results/speed`);
  const tuned = page.getByRole('row', { name: /Auklet 19\s+tuned/ }).first();
  await expect(tuned).toContainText('confounded');
  await expect(tuned).toContainText('top layers accepted: the top is not looked at');
});

test('the four claims are told apart', async ({ page, bench }) => {
  await expect(async () => {
    await open(page, `${bench.study}/results/speed`);
    await expect(page.getByText(/Claimed 195 mm\/s.*1\d\d mm\/s is reached/)).toBeVisible({
      timeout: 500,
    });
  }).toPass({ timeout: 60_000 });
  const claims = page.getByRole('region', { name: 'Claim, command, reach' });
  await expect(
    claims.getByText(/Claimed 160.*the file itself does not ask for it/).first(),
  ).toBeVisible();
  await expect(
    claims
      .getByText(/Claimed 430.*the claim would need 38\.7 mm³\/s, the hotend gives 26\.0/)
      .first(),
  ).toBeVisible();
  await expect(claims.getByText(/Claimed 330.*nothing holds it back/)).toBeVisible();
  await expect(claims.getByText(/Claimed 195.*acceleration and short lines/)).toBeVisible();
  await expectAccessible(page);
});

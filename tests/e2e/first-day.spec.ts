import type { Page } from '@playwright/test';
import { spreadsheet } from '../support/spreadsheet';
import { expect, expectAccessible, open, settled, test, HAND_MS } from './bench';

const rowsOf = async (study: string, table: string): Promise<Record<string, unknown>[]> => {
  const origin = new URL(study).origin;
  const id = study.split('/').at(-1);
  return (await fetch(`${origin}/api/v1/studies/${id}/rows/${table}`)).json() as never;
};

const post = async (study: string, path: string, content: object): Promise<void> => {
  const origin = new URL(study).origin;
  const id = study.split('/').at(-1);
  const answer = await fetch(`${origin}/api/v1/studies/${id}/${path}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', origin },
    body: JSON.stringify(content),
  });
  expect(answer.status, await answer.text()).toBe(201);
};

/** A study with one machine and one material, ready for its first artefact. */
async function newStudy(url: string): Promise<string> {
  const answer = await fetch(`${url}/api/v1/studies`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', origin: url },
    body: JSON.stringify({ title: 'First day', intent: 'machines' }),
  });
  expect(answer.status).toBe(201);
  const { study_id } = (await answer.json()) as { study_id: string };
  const study = `${url}/studies/${study_id}`;
  const rows: [string, object][] = [
    ['machines', { machine_id: 'dunlin', name: 'Dunlin' }],
    ['profiles', { profile_id: 'p', name: 'as shipped', kind: 'stock' }],
    ['materials', { material_id: 'pla', type: 'PLA' }],
    ['contenders', { contender_id: 'D', label: 'Dunlin', machine_id: 'dunlin', profile_id: 'p' }],
    ['instruments', { instrument_id: 'c1', name: 'Caliper', resolution_mm: 0.01 }],
  ];
  for (const [table, row] of rows) await post(study, `rows/${table}`, row);
  return study;
}

/** Makes a part in the maker without a mouse, and waits for its sheet. */
async function makePart(page: Page, study: string, name: string, numbers: [string, string][]) {
  await open(page, `${study}/artefacts/new`);
  await page.getByRole('radio', { name }).focus();
  await page.keyboard.press('Space');
  for (const [label, value] of numbers) {
    await page.getByLabel(label, { exact: false }).first().focus();
    await page.keyboard.press('Control+a');
    await page.keyboard.type(value);
  }
  await expect(page.getByRole('button', { name: 'Add to the study' })).toBeEnabled();
  await page.keyboard.press('Tab');
  await page.getByRole('button', { name: 'Add to the study' }).focus();
  await page.keyboard.press('Enter');
  await page.waitForURL(/artefacts\/[a-z]+-[a-z]+$/);
  await settled(page);
}

async function printOne(page: Page, study: string, artefact: string): Promise<void> {
  await open(page, `${study}/runs`);
  await page.getByRole('button', { name: `Add a print: ${artefact}, Dunlin` }).focus();
  await page.keyboard.press('Enter');
  const panel = page.getByRole('dialog');
  await panel.getByRole('button', { name: 'It is over already' }).focus();
  await page.keyboard.press('Enter');
  await panel.getByLabel('material').selectOption({ label: 'PLA' });
  await panel.getByLabel('outcome').selectOption('success');
  await panel.getByRole('button', { name: 'Save print' }).focus();
  await page.keyboard.press('Enter');
  await expect(panel).toBeHidden();
}

test('a first day by keyboard: parts from numbers, three prints, sixty readings, a ladder, a plate map', async ({
  page,
  bench,
}) => {
  test.setTimeout(120_000);
  const study = await newStudy(bench.url);
  await makePart(page, study, 'Tile field', [
    ['plate, along x', '260'],
    ['plate, along y', '220'],
    ['tiles along x', '5'],
    ['tiles along y', '4'],
  ]);
  await makePart(page, study, 'Ring stack', []);
  await printOne(page, study, 'Tile field');
  await printOne(page, study, 'Ring stack');
  await printOne(page, study, 'Ring stack');
  // The mesh says where its twenty copies lie: nobody types it.
  const specimens = await rowsOf(study, 'specimens');
  expect(specimens).toHaveLength(22);
  expect(specimens[0]).toMatchObject({ plate_x_mm: -90, plate_y_mm: -70 });
  await open(page, `${study}/measure`);
  // The zero first, by its key.
  await page.keyboard.press('z');
  await expect(page.getByRole('region', { name: 'Zero check' })).toBeVisible();
  await page.keyboard.type('0.00');
  await page.keyboard.press('Enter');
  await expect(page.locator('[data-mark=zero]')).toContainText('zero ±0.00 checked');
  for (let tile = 0; tile < 20; tile += 1) {
    const tilt = 0.0008 * Number(specimens[tile]?.plate_x_mm);
    for (const value of [40.03, 39.98, 4 + tilt]) {
      await page.keyboard.type(value.toFixed(2));
      await page.keyboard.press('Enter');
    }
    await expect(page.getByText('All dimensions of this specimen are measured')).toBeVisible();
    await page.keyboard.press('Control+Enter');
  }
  await expect(page.locator('[data-mark=zero]')).toContainText('60 readings ago');
  await expect(page.getByText(/waits? in this browser/)).toBeHidden();
  await open(page, `${study}/measure/ladders`);
  await page.getByRole('heading', { name: 'Ladders and checks' }).click();
  const ladder = page.getByRole('region', { name: 'Rings that turn' });
  // As a hand does: the next key when the last one is seen to have done its work.
  for (const [key, said] of [
    ['c', '0.6: clear'],
    ['c', '0.5: clear'],
    ['c', '0.4: clear'],
    ['c', '0.3: clear'],
    ['e', '0.25: with effort'],
    ['f', '0.2: fails'],
  ] as const) {
    await page.keyboard.press(key, { delay: HAND_MS });
    await expect(ladder.getByRole('button', { name: `Rings that turn ${said}` })).toBeVisible();
  }
  // The check that the part came with is asked for.
  await expect(page.getByText('turns', { exact: true })).toBeVisible();
  await open(page, `${study}/results/accuracy?plate=tile-field%2Ftile-z`);
  const plate = page.getByRole('region', { name: 'Over the plate' });
  await expect(plate).toContainText('it is there (p < 0.001)');
  await expect(plate).toContainText('tilt +80 along x');
  await open(page, `${study}/results/limits`);
  await expect(page.getByRole('region', { name: /Rings that turn/ })).toContainText('0.3');
});

test('readings as the plan asks, shuffled and hidden, and a pasted column', async ({
  page,
  bench,
}) => {
  const study = await newStudy(bench.url);
  await makePart(page, study, 'Stair block', []);
  await printOne(page, study, 'Stair block');
  await printOne(page, study, 'Stair block');
  const id = study.split('/').at(-1);
  const origin = new URL(study).origin;
  const { row_version } = (await (await fetch(`${origin}/api/v1/studies/${id}`)).json()) as {
    row_version: number;
  };
  await page.evaluate(
    async ([path, version]) => {
      await fetch(String(path), {
        method: 'PATCH',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({
          version,
          change: { plan: { seed: 3, block_by: 'repeat', prints_per_day: 8, readings: 2 } },
        }),
      });
    },
    [`/api/v1/studies/${id}`, row_version],
  );
  await open(page, `${study}/measure`);
  const present = page.getByRole('region', { name: 'Reading' }).getByRole('heading');
  await expect(present).toContainText('x1 step');
  await page.keyboard.type('20.05');
  await page.keyboard.press('Enter');
  // Twice, as the plan asks; and what is far from the first reading is asked about.
  await expect(present).toContainText('x1 step');
  await expect(present).toContainText('reading 2');
  await page.keyboard.type('20.25');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert').filter({ hasText: 'read here before' })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.type('20.06');
  await page.keyboard.press('Enter');
  await expect(present).toContainText('x2 steps');
  await expect(page.locator('[data-present]').first()).toHaveAttribute('data-dimension', 'x2');
  // A column from a spreadsheet falls on the dimensions from here on.
  await page.getByRole('textbox', { name: /^Reading of/ }).evaluate((field) => {
    const clipboardData = new DataTransfer();
    clipboardData.setData('text', '40.03\n60.01\r\n80,07\n');
    field.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }),
    );
  });
  const pasted = page.getByRole('region', { name: 'Pasted column' });
  await expect(pasted.getByRole('row', { name: /x4 length/ })).toContainText('+0.07');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('row', { name: /x4 length/ })).toContainText('80.070');
  // Hidden: no badge, no print, only the code; the letter is a command by itself.
  await expect(page.getByText(/^print /)).toBeVisible();
  await page.getByRole('textbox', { name: /^Reading of/ }).focus();
  await page.keyboard.press('b');
  await expect(page.getByText('contenders stay hidden').first()).toBeVisible();
  await expect(page.getByText(/^print /)).toHaveCount(0);
  await expect(page.getByRole('region', { name: 'Specimens' }).locator('[data-badge]')).toHaveCount(
    0,
  );
  await expectAccessible(page);
});

test('is the caliper good enough: planned, read by two, answered in words', async ({
  page,
  bench,
}) => {
  await open(page, `${bench.study}/instruments/caliper-2`);
  await expect(page.getByRole('region', { name: 'Zero' })).toContainText('every reading is off by');
  const form = page.getByRole('form', { name: 'New gauge study' });
  await form.getByLabel('dimension').selectOption({ label: 'Stair block, z4 height' });
  await form.getByLabel('parts').fill('2');
  await form.getByLabel('readings each').fill('2');
  await form.getByRole('button', { name: 'Plan a gauge study' }).click();
  await expect(form.getByRole('alert')).toContainText('At least two people');
  await form.getByLabel('people').fill('AB CD');
  await form.getByRole('button', { name: 'Plan a gauge study' }).press('Enter');
  await page.waitForURL(/measure\/gauge/);
  await settled(page);
  const truth: Record<string, number> = {};
  const all = page.getByRole('region', { name: 'What is read' });
  let done = 0;
  const read = async (shift: number) => {
    for (let at = 0; at < 4; at += 1) {
      // The part that is asked for has changed once the reading before is counted.
      await expect.poll(async () => (await all.textContent())?.split('●').length).toBe(done + 1);
      const code = (await page.locator('p b.font-mono').first().textContent()) ?? '';
      truth[code] ??= 32 + 0.1 * Object.keys(truth).length;
      await page.keyboard.type((truth[code] + shift + (at < 2 ? 0 : 0.01)).toFixed(2));
      await page.keyboard.press('Enter');
      done += 1;
    }
  };
  await read(0);
  await expect(page.getByText('AB has read every part 2 times.')).toBeVisible();
  await page.getByRole('button', { name: 'CD' }).press('Enter');
  await page.getByRole('textbox', { name: /^Reading of/ }).focus();
  await read(0.02);
  await expectAccessible(page);
  await page.getByRole('link', { name: /see what the instrument is worth/ }).click();
  const gauge = page.getByRole('region', { name: 'Is it good enough?' });
  await expect(gauge).toContainText('2 parts × 2 operators × 2 readings');
  await expect(gauge).toContainText('let one person measure a comparison');
  await expectAccessible(page);
});

test('a foreign table is mapped, its faults told, and kept whole or not at all', async ({
  page,
  bench,
}) => {
  await open(page, `${bench.study}/measure/import`);
  const table = (cell: string) =>
    ['Code;x1 step [mm];width;who', `K7-272;20,07;${cell};KM`, 'K7-273;20,05;30,02;KM'].join('\n');
  const paste = (text: string) =>
    page.getByLabel(/copied from a spreadsheet/).evaluate((field, copied) => {
      const clipboardData = new DataTransfer();
      clipboardData.setData('text', copied);
      field.dispatchEvent(
        new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }),
      );
    }, text);
  await paste(table('n/a'));
  const mapping = page.getByRole('region', { name: 'Mapping' });
  await expect(mapping.getByLabel('what Code is')).toHaveValue('specimen');
  await expect(mapping.getByLabel('what x1 step [mm] is')).toHaveValue('values:x1');
  await mapping.getByLabel('what width is').selectOption({ label: 'y1 width' });
  await expect(mapping.getByRole('list', { name: 'Faults' })).toContainText(
    'row 1, width: “n/a” is no length',
  );
  await expect(mapping.getByRole('button', { name: /^Keep/ })).toBeDisabled();
  await expectAccessible(page);
  // Another visit remembers what a column was.
  await open(page, `${bench.study}/measure/import`);
  await paste(table('30,01'));
  await expect(mapping.getByLabel('what width is')).toHaveValue('values:y1');
  await mapping.getByLabel(/names none/).selectOption({ label: 'Caliper 1' });
  await mapping.getByRole('button', { name: 'Keep 4 readings' }).press('Enter');
  await expect(page.getByRole('status').filter({ hasText: '4 readings saved' })).toBeVisible();
  await open(page, `${bench.study}/measure?specimen=K7-272`);
  await expect(page.getByRole('row', { name: /y1 width/ })).toContainText('30.010');
  // They are taken back, so that other tests find the demo as it is.
  const base = `${bench.url}/api/v1/studies/${bench.study.split('/').at(-1)}/readings`;
  const kept = (await (await fetch(base)).json()) as Record<string, string>[];
  const mine = kept.filter((row) => /^K7-27[23]$/.test(row.specimen_id ?? ''));
  expect(mine).toHaveLength(4);
  for (const { reading_id } of mine) {
    const answer = await fetch(`${base}/${reading_id}`, {
      method: 'DELETE',
      headers: { 'content-type': 'application/json', origin: bench.url },
      body: JSON.stringify({ at: '2026-03-30T10:00:00+02:00' }),
    });
    expect(answer.ok).toBe(true);
  }
});

test('a spreadsheet file is read, and what is none is told', async ({ page, bench }) => {
  await open(page, `${bench.study}/measure/import`);
  const file = page.getByLabel('a file, .csv or .xlsx');
  await file.setInputFiles({
    name: 'readings.xlsx',
    mimeType: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
    buffer: Buffer.from(
      spreadsheet([
        ['sample', 'feature', 'actual'],
        ['K7-273', 'z2 height', 16.02],
        ['K7-273', 'hole 6', 5.91],
      ]),
    ),
  });
  await expect(page.locator('[data-mark=outcome]')).toHaveText(
    '2 readings of 1 specimen; the first is 16.020 mm.',
  );
  await file.setInputFiles({
    name: 'old.xls',
    mimeType: 'application/vnd.ms-excel',
    buffer: Buffer.from([0xd0, 0xcf, 0x11, 0xe0]),
  });
  await expect(page.getByRole('alert')).toContainText('save it as .xlsx or .csv');
  await file.setInputFiles({
    name: 'broken.xlsx',
    mimeType: 'application/zip',
    buffer: Buffer.from([0x50, 0x4b, 3, 4, 0, 0]),
  });
  await expect(page.getByRole('alert')).toContainText('cannot be read as a spreadsheet');
});

test('before and after ends in its true sentence', async ({ page, bench }) => {
  const studies = (await (await fetch(`${bench.url}/api/v1/studies`)).json()) as {
    study_id: string;
    title: string;
  }[];
  const update = studies.find(({ title }) => title.startsWith('The Gannet before'));
  await open(page, `${bench.url}/studies/${update?.study_id}/results/accuracy`);
  await expect(page.locator('[data-mark=before-after-sentence]')).toContainText(
    'one print before and one print after can show a difference, not decide it',
  );
  await expect(page.getByRole('figure', { name: /^tile along x/ })).toContainText(
    'smaller at 12 of 12 places',
  );
  await expect(page.getByRole('button', { name: 'one print' })).toBeVisible();
  await expectAccessible(page);
});

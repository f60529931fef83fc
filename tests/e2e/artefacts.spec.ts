import { readFileSync } from 'node:fs';
import { zipSync } from 'fflate';
import { factsOfMesh, writeStl } from '../../src/core/geometry/mesh';
import { boxSoup } from '../support/meshes';
import { expect, expectAccessible, open, settled, test } from './bench';

test('a part is made by numbers, taken into the study, and dimensioned by picking', async ({
  page,
  bench,
}) => {
  // A study of its own: a second stair block would make files of the first one ambiguous.
  const begun = await fetch(`${bench.url}/api/v1/studies`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', origin: bench.url },
    body: JSON.stringify({ title: 'Parts', intent: 'machines' }),
  });
  const { study_id } = (await begun.json()) as { study_id: string };
  await open(page, `${bench.url}/studies/${study_id}/artefacts/new`);
  const maker = page.getByRole('form', { name: 'Numbers of the part' });
  const drawing = page.getByRole('region', { name: 'Drawing' });
  await expect(drawing).toContainText('80.0 × 30.0 × 32.0');
  // What cannot be is said at once, with what would help.
  await maker.getByLabel('largest hole').fill('12');
  await expect(maker.getByRole('alert').first()).toContainText('longer block or smaller holes');
  await maker.getByLabel('largest hole').fill('8');
  await maker.getByLabel('length').fill('100');
  await expect(drawing).toContainText('100.0 × 30.0 × 32.0');
  const arriving = page.waitForEvent('download');
  await maker.getByRole('button', { name: '3MF' }).click();
  const file = readFileSync(await (await arriving).path());
  expect(factsOfMesh(file, 'part.3mf')).toMatchObject({ format: '3mf', watertight: true });
  await maker.getByRole('button', { name: 'Add to the study' }).click();
  await page.waitForURL(/artefacts\/stair-block$/);
  await settled(page);
  await expect(page.getByRole('region', { name: 'Dimensions' }).getByRole('row')).toHaveCount(18);
  await expectAccessible(page);
  // A dimension is set by keyboard: a face, another one, and the geometry proposes the rest.
  await page.getByRole('button', { name: 'Set a dimension' }).click();
  const form = page.getByRole('form', { name: 'New dimension' });
  await form.getByLabel('from').selectOption({ label: 'z = 8.00, looks +z' });
  await form.getByLabel('to').selectOption({ label: 'z = 24.00, looks +z' });
  await expect(form).toContainText('16 mm · height along z');
  await form.getByLabel('from').selectOption({ label: 'z = 8.00, looks +z' });
  await form.getByLabel('to').selectOption({ label: 'x = 50.00, looks +x' });
  await expect(form.getByRole('alert')).toContainText('not parallel');
  // By hand: the hole in the drawing.
  await page.locator('[data-side=top] [data-pick^=round]').first().click();
  await expect(form).toContainText(/mm · (hole|boss)/);
  await form.getByLabel('name').fill('first round thing');
  await form.getByRole('button', { name: 'Set this dimension' }).click();
  await expect(page.getByRole('row', { name: /first round thing/ })).toBeVisible();
  // Nothing was read of it: taken out, it is gone.
  await page.getByRole('button', { name: 'Take first round thing out' }).click();
  await expect(page.getByRole('row', { name: /first round thing/ })).toHaveCount(0);
  await page.getByRole('button', { name: 'Draw a zone' }).click();
  const zone = page.getByRole('form', { name: 'New zone' });
  await zone.getByLabel('name').fill('steps');
  await zone.getByLabel('to, across').fill('40');
  await zone.getByLabel('to, up').fill('20');
  await zone.getByRole('button', { name: 'Set this zone' }).click();
  await expect(page.locator('[data-zone=steps]')).toBeVisible();
});

test('a dimension that was read is kept as retired, and leaves what is owed', async ({
  page,
  bench,
}) => {
  await open(page, `${bench.study}/artefacts/tile-field`);
  await page.getByRole('button', { name: 'Take tile thickness out' }).click();
  await expect(page.getByRole('status').filter({ hasText: 'it is retired' })).toBeVisible();
  await open(page, `${bench.study}/measure`);
  await expect(page.getByRole('row', { name: /tile thickness/ })).toHaveCount(0);
  const id = bench.study.split('/').at(-1);
  const path = `/api/v1/studies/${id}/rows/retired_dimensions/tile-field/tile-z`;
  // And back, so that other tests find the demo as it is.
  const gone = await page.evaluate(
    async (address) =>
      (
        await fetch(address, {
          method: 'DELETE',
          headers: { 'content-type': 'application/json' },
          body: JSON.stringify({ version: 1 }),
        })
      ).status,
    path,
  );
  expect(gone).toBe(204);
});

test('a mesh is looked at before it is sent, its unit asked, and a changed one is a new version', async ({
  page,
  bench,
}) => {
  const mesh = (size: readonly [number, number, number]) => ({
    name: 'bracket.stl',
    mimeType: 'model/stl',
    buffer: Buffer.from(writeStl(boxSoup([0, 0, 0], size))),
  });
  await open(page, `${bench.study}/artefacts/import`);
  const input = page.getByLabel('Mesh', { exact: true });
  await input.setInputFiles({
    name: 'broken.stl',
    mimeType: 'model/stl',
    buffer: Buffer.from(writeStl(boxSoup([0, 0, 0], [1, 1, 1])).subarray(0, 300)),
  });
  await expect(page.getByRole('alert')).toContainText('cut off');
  await input.setInputFiles(mesh([2, 1, 0.5]));
  await expect(page.getByText('Its size is doubtful.')).toBeVisible();
  await page.getByLabel(/^inches/).check();
  await expect(page.getByRole('region', { name: 'Drawing' })).toContainText('50.8 × 25.4 × 12.7');
  await page.getByRole('button', { name: 'Add to the study' }).click();
  await page.waitForURL(/artefacts\/bracket$/);
  // The same solid again is told.
  await open(page, `${bench.study}/artefacts/import`);
  await input.setInputFiles(mesh([50.8, 25.4, 12.7]));
  await page.getByRole('button', { name: 'Add to the study' }).click();
  await expect(page.getByRole('alert')).toContainText('the same solid as bracket');
  // Not printed yet: its mesh is replaced. Printed: a new version stands beside it.
  await open(page, `${bench.study}/artefacts/import?for=bracket`);
  await input.setInputFiles(mesh([2, 1, 0.5]));
  await expect(page.getByRole('alert')).toContainText('in another unit');
  await input.setInputFiles(mesh([60, 25, 12]));
  await page.getByRole('button', { name: 'Give it this mesh' }).click();
  await page.waitForURL(/artefacts\/bracket$/);
  await open(page, `${bench.study}/artefacts/import?for=ring-stack`);
  await input.setInputFiles(mesh([61, 25, 12]));
  await page.getByRole('button', { name: 'Give it this mesh' }).click();
  await page.waitForURL(/artefacts\/ring-stack-v2$/);
  await expect(page.getByText('version 2', { exact: false }).first()).toBeVisible();
  await expect(page.getByRole('link', { name: 'version 1' })).toBeVisible();
});

test('the part turns under the arrow keys', async ({ page, bench }) => {
  await open(page, `${bench.study}/artefacts/lantern`);
  const turned = page.getByRole('img', { name: /the arrow keys turn it/ });
  await expect(turned.locator('path')).toBeVisible();
  const before = await turned.locator('path').getAttribute('d');
  await turned.focus();
  await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('img', { name: /50° round/ })).toBeVisible();
  await expect(turned.locator('path')).not.toHaveAttribute('d', before ?? '');
  // And it is cut where the slider says; above it there is nothing.
  const slider = page.getByRole('slider', { name: /cut at z/ });
  await expect(page.getByRole('img', { name: /cut at 28.00 mm$/ })).toBeVisible();
  await slider.press('End');
  await expect(page.getByRole('img', { name: /cut at 56.00 mm: nothing there/ })).toBeVisible();
});

test('the demo’s artefacts are drawn in their library', async ({ page, bench }) => {
  await open(page, `${bench.study}/artefacts`);
  for (const name of ['Stair block', 'Tile field', 'Spire pair', 'Echo wall', 'Lantern']) {
    await expect(page.getByRole('img', { name: new RegExp(`^${name}`) }).first()).toBeVisible();
  }
  await expectAccessible(page);
});

test('what is no mesh, or no whole artefact, is refused in words, and quickly', async ({
  bench,
}) => {
  const id = bench.study.split('/').at(-1);
  const base = `${bench.url}/api/v1/studies/${id}`;
  const send = async (path: string, body: BodyInit, type: string) => {
    const began = Date.now();
    const headers = { 'content-type': type, origin: bench.url };
    const answer = await fetch(`${base}/${path}`, { method: 'POST', headers, body });
    const { detail } = (await answer.json()) as { detail: string };
    expect(Date.now() - began).toBeLessThan(2000);
    return `${answer.status} ${detail}`;
  };
  const mesh = (bytes: Uint8Array, name = 'x.stl') =>
    send(`meshes?name=${name}`, bytes as Uint8Array<ArrayBuffer>, 'application/octet-stream');
  const claim = writeStl(boxSoup([0, 0, 0], [1, 1, 1]));
  new DataView(claim.buffer).setUint32(80, 4_000_000_000, true);
  expect(await mesh(claim)).toContain('422 The mesh claims 4000000000 triangles');
  expect(await mesh(new Uint8Array([0x89, 0x50, 0x4e, 0x47, 0]), 'x.png')).toContain(
    'is no STL, OBJ or 3MF',
  );
  const bomb = zipSync({ '3D/3dmodel.model': new Uint8Array(30 * 1024 * 1024) }, { level: 9 });
  expect(await mesh(bomb, 'x.3mf')).toContain('unpacks to');
  const artefact = {
    artefact_id: 'half',
    name: 'Half',
    version: '1',
    mesh: null,
    mesh_sha256: null,
    notes: null,
  };
  const place = {
    artefact_id: 'half',
    dimension_id: 'nowhere',
    x1_mm: 0,
    y1_mm: 0,
    z1_mm: 0,
    x2_mm: 1,
    y2_mm: 0,
    z2_mm: 0,
  };
  const half = JSON.stringify({ artefact, dimension_places: [place] });
  expect(await send('artefacts', half, 'application/json')).toContain(
    'nowhere is not among the dimensions',
  );
  const lost = JSON.stringify({ artefact: { ...artefact, mesh: 'meshes/none.stl' } });
  expect(await send('artefacts', lost, 'application/json')).toContain('send it first');
  const rows = (await (await fetch(`${base}/rows/artefacts`)).json()) as { artefact_id: string }[];
  expect(rows.some((row) => row.artefact_id === 'half')).toBe(false);
});

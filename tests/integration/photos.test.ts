import { beforeAll, describe, expect, it } from 'vitest';
import { unzipSync } from 'fflate';
import sharp from 'sharp';
import { cardText, type CardCorner } from '../../src/core/measures/image';
import { writeStl } from '../../src/core/geometry/mesh';
import { createFleet } from '../support/fleet';
import { boxSoup } from '../support/meshes';
import { drawn, jpegOf, made, sendPhoto, type ListedPhoto } from '../support/photos';
import { sharedServed } from '../support/served';

const api = sharedServed();
const { call, get, url } = api;

let study: string;
beforeAll(async () => {
  study = await createFleet(url(), 2);
  for (const [contender, code] of [
    ['c-1', 'K7-001'],
    ['c-2', 'K7-002'],
  ]) {
    const print_id = `P-${code}`;
    await row('prints', {
      print_id,
      contender_id: contender,
      artefact_id: 'clip',
      material_id: 'pla',
      repeat: 1,
      order: 1,
      outcome: 'success',
    });
    await row('specimens', { specimen_id: code, print_id, copy: 1, code });
  }
});

async function row(table: string, content: object) {
  const { status, content: answer } = await call(
    'POST',
    `/studies/${study}/rows/${table}`,
    content,
  );
  if (status >= 300) throw new Error(`${table}: ${String(answer.detail)}`);
}

/** A number between 0 and 1 for a pixel that says nothing of its neighbours'. */
function hashed(x: number, y: number, seed: number): number {
  let bits =
    Math.imul(x + 1, 0x9e3779b1) ^ Math.imul(y + 1, 0x85ebca77) ^ Math.imul(seed, 0xc2b2ae3d);
  bits = Math.imul(bits ^ (bits >>> 15), 0x2c1b3c6d);
  bits = Math.imul(bits ^ (bits >>> 12), 0x297a2d39);
  return ((bits ^ (bits >>> 15)) >>> 0) / 2 ** 32;
}

let count = 0;
/** A photo that no other test has, of a wall that rings from its left on: 20 px/mm, wave 2 mm. */
async function wall(code: string | null, wave = 40) {
  count += 1;
  const noise = count;
  const grey = (x: number, y: number) =>
    120 *
      (1 +
        (wave > 0 ? 0.08 * Math.exp(-x / 160) * Math.cos((2 * Math.PI * x) / wave) : 0) +
        0.04 * (hashed(x, y, noise) - 0.5)) +
    noise / 10;
  const codes = code === null ? [] : [{ text: code, left: 620, top: 20, module: 5 }];
  return jpegOf(drawn(800, 400, grey, codes), 800, 400);
}

const photos = `/studies/`;
const base = () => `${photos}${study}/photos`;

async function filed(code: string, wave?: number): Promise<ListedPhoto> {
  const { content } = await sendPhoto(api, study, 'wall.jpg', await wall(code, wave));
  const path = String(content.path);
  await made(api, study, path);
  await call('PATCH', base(), { paths: [path], view: 'front', light: 'raking-left' });
  return made(api, study, path);
}

/** 20 px/mm, the photo's lower left at 0, 0. */
const MARKS = [
  { u_px: 0, v_px: 0, x_mm: 0, y_mm: 20 },
  { u_px: 800, v_px: 0, x_mm: 40, y_mm: 20 },
  { u_px: 800, v_px: 400, x_mm: 40, y_mm: 0 },
  { u_px: 0, v_px: 400, x_mm: 0, y_mm: 0 },
];

/** Behind the edge of the wall, mm. */
const REGION = { x: 0.5, y: 2, w: 28, h: 10, unit: 'mm' };

interface Measured {
  values: Record<string, unknown>;
}

describe('photos come in', () => {
  it('one with a sticker files itself, one without waits to be told', async () => {
    const one = await sendPhoto(api, study, 'a.jpg', await wall('K7-002'));
    const other = await sendPhoto(api, study, 'b.jpg', await wall(null));
    expect(await made(api, study, String(one.content.path))).toMatchObject({
      state: 'ready',
      width: 800,
      height: 400,
      codes: ['K7-002'],
      filed: { specimen_id: 'K7-002', view: null, light: null },
    });
    expect((await made(api, study, String(other.content.path))).filed).toBeNull();
    // What is said before the specimen is known waits with the photo, and counts once it is.
    const paths = [String(other.content.path)];
    await call('PATCH', base(), { paths, view: 'top' });
    await call('PATCH', base(), { paths, light: 'flat', session: 'noon' });
    expect((await made(api, study, paths[0] ?? '')).filed).toBeNull();
    await call('PATCH', base(), { paths, specimen_id: 'K7-001', light: 'back' });
    expect((await made(api, study, paths[0] ?? '')).filed).toMatchObject({
      specimen_id: 'K7-001',
      view: 'top',
      light: 'back',
      session: 'noon',
    });
  });

  it('is filed as it is announced, in the action that makes it a photo of the study', async () => {
    const content = await wall(null, 17);
    const told = { specimen_id: 'K7-002', view: 'back', light: 'flat', session: 'dusk' };
    const sent = await sendPhoto(api, study, 'told.jpg', content, told);
    const path = String(sent.content.path);
    // At once: nobody has waited for a job or sent anything more.
    const list = await api.get<ListedPhoto[]>(`/studies/${study}/photos`);
    expect(list.find((one) => one.path === path)?.filed).toMatchObject(told);
    // Bytes that come once more are answered by the photo, and change nothing of it.
    const again = await sendPhoto(api, study, 'told.jpg', content, { view: 'top' });
    expect(again.content).toMatchObject({ path, isKnown: true });
    expect((await made(api, study, path)).filed).toMatchObject(told);
  });

  it('is refused as it is announced where its specimen is not there, before any byte', async () => {
    const content = await wall(null, 18);
    const sent = await sendPhoto(api, study, 'lost.jpg', content, { specimen_id: 'K7-999' });
    expect(sent.status).toBe(404);
    expect(JSON.stringify(sent.content)).toContain('K7-999');
    const other = await sendPhoto(api, study, 'lost.jpg', content, { view: 'sideways' });
    expect(other.status).toBe(400);
  });

  it('the picture of an incident that is a photo too stays when the photo is taken out', async () => {
    const content = await wall(null);
    await row('incidents', {
      incident_id: 'I-1',
      machine_id: 'm-1',
      mode: 'tangled',
      cause: 'operator',
    });
    const incident = `/studies/${study}/incidents/I-1/photos`;
    const kept = await call('PUT', incident, content as BodyInit);
    const sent = await sendPhoto(api, study, 'same.jpg', content);
    expect(sent.content.isKnown).toBe(false);
    expect(sent.content.path).not.toBe(kept.content.path);
    await made(api, study, String(sent.content.path));
    const out = await call(
      'DELETE',
      `${base()}?path=${encodeURIComponent(String(sent.content.path))}`,
    );
    expect(out.status).toBe(204);
    const path = encodeURIComponent(String(kept.content.path));
    expect((await fetch(`${url()}/api/v1${incident}?path=${path}`)).status).toBe(200);
  });

  it('another photo of the name of one that was taken out is another picture', async () => {
    const send = async (grey: number) => {
      const data = drawn(60, 40, () => grey);
      const sent = await sendPhoto(api, study, 'again.jpg', await jpegOf(data, 60, 40));
      return made(api, study, String(sent.content.path));
    };
    const first = await send(40);
    await call('DELETE', `${base()}?path=${encodeURIComponent(first.path)}`);
    const second = await send(200);
    expect(second.path).toBe(first.path);
    expect(second.version).not.toBe(first.version);
  });

  it('the same photo twice is recognised, whatever its name', async () => {
    const content = await wall('K7-001');
    const first = await sendPhoto(api, study, 'first.jpg', content);
    const again = await sendPhoto(api, study, 'again.jpg', content);
    expect(again.content).toEqual({ path: first.content.path, isKnown: true });
  });

  it('a photo on its side is seen upright, and nothing of its file goes out with it', async () => {
    const content = await jpegOf(
      drawn(300, 200, (x) => (x < 30 ? 240 : 60)),
      300,
      200,
      6,
    );
    const { content: sent } = await sendPhoto(api, study, 'side.jpg', content);
    const path = String(sent.path);
    expect(await made(api, study, path)).toMatchObject({ width: 200, height: 300 });
    const address = `${url()}/api/v1${base()}/part?level=0&path=${encodeURIComponent(path)}`;
    const answer = await fetch(address);
    expect(answer.headers.get('content-type')).toBe('image/jpeg');
    const shown = await sharp(Buffer.from(await answer.arrayBuffer())).metadata();
    expect([shown.width, shown.height, shown.orientation, shown.exif]).toEqual([
      200,
      300,
      undefined,
      undefined,
    ]);
    const original = await fetch(address.replace('/part?level=0&', '/original?'));
    expect(original.headers.get('content-type')).toBe('application/octet-stream');
    expect(Buffer.from(await original.arrayBuffer()).equals(content)).toBe(true);
  });

  it.each([
    ['a HEIC picture', Buffer.from('\0\0\0\u0018ftypheic and more of it'), 'send it as JPEG'],
    ['a drawing with a script', Buffer.from('<svg onload="alert(1)"></svg>'), 'JPEG, PNG or WebP'],
    ['a page', Buffer.from('<!doctype html><p>photo</p>'), 'JPEG, PNG or WebP'],
  ])('%s is refused, and nothing of it is kept', async (_, content, reason) => {
    const before = await get<ListedPhoto[]>(base());
    const answer = await sendPhoto(api, study, 'photo.jpg', content);
    expect(answer.status).toBe(415);
    expect(answer.content.detail).toContain(reason);
    expect(await get<ListedPhoto[]>(base())).toHaveLength(before.length);
  });

  it('a photo that is cut off is kept and said to be broken', async () => {
    const whole = await wall('K7-001');
    const { content } = await sendPhoto(api, study, 'cut.jpg', whole.subarray(0, whole.length / 2));
    const photo = await made(api, study, String(content.path));
    expect(photo.state).toBe('failed');
    expect(photo.message).toContain('broken');
  });

  const grey = (level: number) =>
    sharp({
      create: { width: 64, height: 48, channels: 3, background: { r: level, g: level, b: level } },
    });
  it.each([
    ['four printing colours', () => grey(91).toColourspace('cmyk').jpeg().toBuffer()],
    ['sixteen bits', () => grey(92).toColourspace('rgb16').png().toBuffer()],
    ['one channel', () => grey(93).toColourspace('b-w').png().toBuffer()],
    ['an alpha channel', () => grey(94).ensureAlpha(0.5).webp().toBuffer()],
  ])('a picture of %s is read', async (_, make) => {
    const { content } = await sendPhoto(api, study, 'odd', await make());
    expect(await made(api, study, String(content.path))).toMatchObject({
      state: 'ready',
      width: 64,
      height: 48,
    });
  });

  it('over sixty megapixels are refused by their head', async () => {
    const large = await sharp({
      create: { width: 9000, height: 7000, channels: 3, background: '#777' },
    })
      .png({ compressionLevel: 9 })
      .toBuffer();
    const { content } = await sendPhoto(api, study, 'large.png', large);
    expect((await made(api, study, String(content.path))).message).toContain('60 megapixels');
  });
});

describe('a filed photo', () => {
  it('is tied by its marks, laid flat in tiles, and measured in the view’s millimetres', async () => {
    const photo = await filed('K7-001');
    const tied = await call('PUT', `${base()}/marks`, { path: photo.path, marks: MARKS });
    expect(tied.content).toMatchObject({ kind: 'homography', misfit_mm: null });
    expect(tied.content.px_per_mm).toBeCloseTo(20, 6);
    const laid = await made(api, study, photo.path);
    expect(laid).toMatchObject({ isRectified: true, registration: { kind: 'homography' } });
    const tile = await fetch(
      `${url()}/api/v1${base()}/part?level=0&column=0&row=0&path=${encodeURIComponent(photo.path)}`,
    );
    expect(tile.status).toBe(200);
    expect((await sharp(Buffer.from(await tile.arrayBuffer())).metadata()).width).toBe(512);
    const found = await call('POST', `${base()}/measures`, {
      measure: 'ringing',
      ...REGION,
      photos: [{ path: photo.path, speed_mm_s: 120 }],
      feature: 'x',
    });
    expect(found.status).toBe(201);
    const [{ values } = { values: {} }] = found.content as unknown as Measured[];
    expect(values.found).toBe(true);
    // 40 px at 20 px/mm; at 120 mm/s that is 60 Hz.
    expect((values.wavelength_mm as { estimate: number }).estimate).toBeCloseTo(2, 1);
    expect(
      Math.abs((values.frequency_hz as { estimate: number } | number as number) - 60),
    ).toBeLessThan(3);
    const after = await made(api, study, photo.path);
    expect(after.measures).toHaveLength(1);
    expect(after.measures[0]).toMatchObject({ found: 'true', feature: 'x' });
    // Filed elsewhere it takes its marks and measures along: they are of the picture.
    const moved = await call('PATCH', base(), { paths: [photo.path], specimen_id: 'K7-002' });
    expect(moved.status).toBe(200);
    const there = await made(api, study, photo.path);
    expect(there).toMatchObject({
      filed: { specimen_id: 'K7-002' },
      registration: { kind: 'homography' },
    });
    expect(there.measures.map(({ measure_id }) => measure_id)).toEqual([
      after.measures[0]?.measure_id,
    ]);
    const zip = await fetch(`${url()}/api/v1/studies/${study}/package`);
    const files = unzipSync(new Uint8Array(await zip.arrayBuffer()));
    const rows = new TextDecoder().decode(files['photo_measures.csv']).split('\n');
    const own = rows.filter((row) => row.includes(`,${photo.path},`));
    expect(own.length).toBeGreaterThan(0);
    for (const row of own) expect(row).toMatch(/^K7-002,/);
  });

  it('a wall that does not ring says how strong it would have to be', async () => {
    const photo = await filed('K7-002', 0);
    await call('PUT', `${base()}/marks`, { path: photo.path, marks: MARKS });
    const { content } = await call('POST', `${base()}/measures`, {
      measure: 'ringing',
      ...REGION,
      photos: [{ path: photo.path }],
    });
    const [{ values } = { values: {} }] = content as unknown as Measured[];
    expect(values).toMatchObject({ found: false, wavelength_mm: null, amplitude: null });
    expect(values.detectable_amplitude).toBeGreaterThan(0);
  });

  it.each([
    ['two marks on one point', [MARKS[0], MARKS[0]], 'on one point'],
    ['marks on a line', [MARKS[0], MARKS[1], { ...MARKS[0], u_px: 400, x_mm: 20 }], 'on a line'],
    [
      'exchanged marks',
      [MARKS[1], MARKS[0], MARKS[2], MARKS[3]].map((mark, at) => ({
        ...MARKS[at],
        x_mm: mark?.x_mm,
        y_mm: mark?.y_mm,
      })),
      'inside out',
    ],
  ])('%s are refused, and those before stay', async (_, marks, reason) => {
    const photo = await filed('K7-001');
    await call('PUT', `${base()}/marks`, { path: photo.path, marks: MARKS });
    const answer = await call('PUT', `${base()}/marks`, { path: photo.path, marks });
    expect(answer.status).toBe(422);
    expect(answer.content.detail).toContain(reason);
    expect((await made(api, study, photo.path)).registration?.px_per_mm).toBeCloseTo(20, 6);
  });

  it('what cannot be measured says why, and nothing is kept', async () => {
    const photo = await filed('K7-001');
    const measure = (more: object) =>
      call('POST', `${base()}/measures`, {
        photos: [{ path: photo.path }],
        measure: 'gaps',
        unit: 'px',
        x: 0,
        y: 0,
        w: 100,
        h: 100,
        ...more,
      });
    expect((await measure({})).content.detail).toContain('scale is not known');
    expect((await measure({ unit: 'mm' })).content.detail).toContain('tied to its view');
    await call('PATCH', base(), { paths: [photo.path], px_per_mm: 20 });
    expect((await measure({ x: 750 })).content.detail).toContain('not within the picture');
    expect((await measure({ measure: 'shine' })).status).toBe(400);
    expect((await measure({})).status).toBe(201);
    expect((await made(api, study, photo.path)).measures).toHaveLength(1);
  });

  it('a region is measured on several photos as one: all of them, or none', async () => {
    const [one, two] = [await filed('K7-001'), await filed('K7-002', 0)];
    const measure = () =>
      call('POST', `${base()}/measures`, {
        measure: 'ringing',
        ...REGION,
        photos: [{ path: one.path }, { path: two.path }],
      });
    await call('PUT', `${base()}/marks`, { path: one.path, marks: MARKS });
    // The second is not tied yet: the first is not measured either.
    expect((await measure()).status).toBe(422);
    expect((await made(api, study, one.path)).measures).toEqual([]);
    await call('PUT', `${base()}/marks`, { path: two.path, marks: MARKS });
    expect((await measure()).status).toBe(201);
    expect((await made(api, study, one.path)).measures).toMatchObject([{ found: 'true' }]);
    expect((await made(api, study, two.path)).measures).toMatchObject([{ found: 'false' }]);
    const twice = await call('POST', `${base()}/measures`, {
      measure: 'ringing',
      ...REGION,
      photos: [{ path: one.path }, { path: one.path }],
    });
    expect(twice.content.detail).toContain('a photo is listed twice');
  });

  it('marks are carried over to the session’s other photos of the same specimen and view', async () => {
    const [one, two, other] = [await filed('K7-001'), await filed('K7-001'), await filed('K7-002')];
    const paths = [one.path, two.path, other.path];
    await call('PATCH', base(), { paths, session: 'evening' });
    const tied = await call('PUT', `${base()}/marks`, { path: one.path, marks: MARKS });
    expect(tied.content).toMatchObject({ kind: 'homography' });
    const carried = await call('POST', `${base()}/marks`, { path: one.path });
    expect(carried.content).toEqual([two.path]);
    expect((await made(api, study, two.path)).registration?.px_per_mm).toBeCloseTo(20, 6);
    expect((await made(api, study, other.path)).registration).toBeNull();
  });

  it('photos, marks and measures travel with the package, and are made anew where it arrives', async () => {
    const photo = await filed('K7-001');
    await call('PUT', `${base()}/marks`, { path: photo.path, marks: MARKS });
    const packed = await fetch(`${url()}/api/v1/studies/${study}/package`);
    const imported = await call('PUT', '/imports', Buffer.from(await packed.arrayBuffer()));
    expect(imported.status).toBe(201);
    const there = String(imported.content.study_id);
    const arrived = await made(api, there, photo.path);
    expect(arrived).toMatchObject({ state: 'ready', isRectified: true, filed: { view: 'front' } });
  });
});

describe('marks are proposed', () => {
  // 18 mm of a code are 25 modules of 6 pixels.
  const SCALE = 150 / 18;
  const [WIDTH, HEIGHT] = [Math.round(200 * SCALE), Math.round(140 * SCALE)];

  /** A part in the card's bracket, some times as large as drawn; codes in the corners that are named. */
  async function onCard(times: number, corners: readonly CardCorner[], ground = 235) {
    count += 1;
    const [left, bottom] = [34 * SCALE, HEIGHT - 32 * SCALE];
    const isPart = (x: number, y: number) =>
      x > left && x < left + 60 * times * SCALE && y < bottom && y > bottom - 40 * times * SCALE;
    const far = 200 - 6 - 18;
    const codes = corners.map((corner) => ({
      text: cardText(corner),
      module: 6,
      left: Math.round((corner.endsWith('L') ? 6 : far) * SCALE) - 18,
      top: Math.round((corner.startsWith('T') ? 6 : 140 - 6 - 18) * SCALE) - 18,
    }));
    const grey = (x: number, y: number) => (times > 0 && isPart(x, y) ? 70 + count : ground);
    const content = await jpegOf(drawn(WIDTH, HEIGHT, grey, codes), WIDTH, HEIGHT);
    const sent = await sendPhoto(api, study, 'card.jpg', content);
    const paths = [String(sent.content.path)];
    await made(api, study, paths[0] ?? '');
    await call('PATCH', base(), { paths, specimen_id: 'K7-BLOCK', view: 'front' });
    return paths[0] ?? '';
  }

  const propose = (path: string) => call('GET', `${base()}/marks?path=${encodeURIComponent(path)}`);

  beforeAll(async () => {
    const mesh = Buffer.from(writeStl(boxSoup([0, 0, 0], [60, 10, 40])));
    const kept = await call('POST', `/studies/${study}/meshes?name=block.stl`, mesh);
    await row('artefacts', { artefact_id: 'block', name: 'Block', mesh: kept.content.path });
    await row('prints', {
      print_id: 'P-BLOCK',
      contender_id: 'c-1',
      artefact_id: 'block',
      material_id: 'pla',
      repeat: 1,
      order: 9,
      outcome: 'success',
    });
    await row('specimens', { specimen_id: 'K7-BLOCK', print_id: 'P-BLOCK', copy: 1 });
  });

  it('from the part’s outline on the card, whose size agrees', async () => {
    const { content } = await propose(await onCard(1, ['TL', 'TR', 'BR', 'BL']));
    expect(content.from).toBe('outline');
    expect(Math.abs(content.larger_than_drawn as number)).toBeLessThan(0.02);
    expect(content.card_misfit_mm).toBeLessThan(0.3);
    const [mark] = content.marks as Record<string, number>[];
    expect(mark).toMatchObject({ x_mm: 0, y_mm: 40 });
    expect(Math.abs((mark?.u_px ?? 0) - 34 * SCALE)).toBeLessThan(3);
    expect(Math.abs((mark?.v_px ?? 0) - (HEIGHT - 72 * SCALE))).toBeLessThan(3);
  });

  it('another part than the drawn one is larger by the card', async () => {
    const { content } = await propose(await onCard(1.25, ['TL', 'BR']));
    expect(content.from).toBe('outline');
    expect(Math.abs((content.larger_than_drawn as number) - 0.25)).toBeLessThan(0.03);
  });

  it('from the card’s bracket where no outline stands out', async () => {
    const { content } = await propose(await onCard(0, ['TL', 'TR', 'BR']));
    expect(content.from).toBe('card');
    const marks = content.marks as Record<string, number>[];
    expect(marks.map(({ x_mm, y_mm }) => [x_mm, y_mm])).toEqual([
      [0, 40],
      [60, 40],
      [60, 0],
      [0, 0],
    ]);
    expect(Math.abs((marks[3]?.u_px ?? 0) - 34 * SCALE)).toBeLessThan(4);
  });

  it('without card and outline nothing is made up', async () => {
    const answer = await propose(await onCard(0, [], 180));
    expect(answer.status).toBe(422);
    expect(answer.content.detail).toContain('Set the marks by hand');
  });

  it('without a drawing of the view nothing is proposed', async () => {
    const answer = await propose((await filed('K7-001')).path);
    expect(answer.status).toBe(422);
    expect(answer.content.detail).toContain('no drawing of this view');
  });
});

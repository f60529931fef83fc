import { createHash } from 'node:crypto';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import exifReader from 'exif-reader';
import { unzipSync, zipSync } from 'fflate';
import { parse } from 'node-html-parser';
import sharp from 'sharp';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import type { ReportModel, RevisionFigures } from '../../src/core/text/report';
import type { ReportPage } from '../../src/server/report/page';
import type { RevisionSeen } from '../../src/server/report/revisions';
import { DEMO_PAIR } from '../support/demo-files';
import { served } from '../support/served';
import { kill, startServer } from '../support/server';
import { isForPrograms, readOn } from '../support/words';

// The sweep has photos of everyone, and is small.
const { call, get, url, db, databaseUrl, server } = served(DEMO_PAIR);
const folder = mkdtempSync(join(tmpdir(), 'report-test-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

let study: string;
const at = () => `/studies/${study}/report`;
const seen = () => get<ReportPage>(at());
const revisions = () => get<RevisionSeen[]>(`${at()}/revisions`);

/** Freezes the study, and waits until it is made. */
async function frozen(): Promise<RevisionSeen> {
  const { status, content } = await call('POST', `${at()}/revisions`, {});
  expect(status).toBe(202);
  for (;;) {
    const one = (await revisions()).find(({ number }) => number === content.number);
    if (one?.state === 'ready' || one?.state === 'failed') return one;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
}

const file = async (number: number, path: string) => {
  const answer = await fetch(`${url()}${at()}/${number}/${path}`);
  return {
    status: answer.status,
    headers: answer.headers,
    bytes: new Uint8Array(await answer.arrayBuffer()),
  };
};
const text = async (number: number, path: string) =>
  new TextDecoder().decode((await file(number, path)).bytes);
const figuresOf = async (number: number) =>
  JSON.parse(await text(number, 'figures.json')) as RevisionFigures;
const read = (path: string) => fetch(`${url()}${path}`, { redirect: 'manual' });

const sentence = (
  verdict_id: string,
  words: string,
  rests_on: string[],
  version: number | null = null,
) => ({ verdict_id, contender_id: null, kind: 'answer', text: words, rests_on, version });
const write = (...given: Parameters<typeof sentence>) =>
  call('PUT', `${at()}/words`, sentence(...given));

/** Runs `vergleich verify` on a report with some of its files changed. */
function verify(
  zip: Uint8Array,
  change: Record<string, (bytes: Uint8Array) => Uint8Array> = {},
  without: readonly string[] = [],
) {
  const files = unzipSync(zip);
  for (const name of without) delete files[name];
  for (const [name, edit] of Object.entries(change)) {
    files[name] = new Uint8Array(edit(files[name] ?? new Uint8Array()));
  }
  const path = join(folder, 'report.zip');
  writeFileSync(path, zipSync(files, { level: 0 }));
  const { status, stdout, stderr } = spawnSync(
    process.execPath,
    [join('bin', 'vergleich.mjs'), 'verify', path],
    { encoding: 'utf8' },
  );
  return { status, stdout, stderr };
}
const asText = (edit: (text: string) => string) => (bytes: Uint8Array) =>
  new TextEncoder().encode(edit(new TextDecoder().decode(bytes)));
const inData = (name: string, edit: (text: string) => string) => (bytes: Uint8Array) => {
  const files = unzipSync(bytes);
  return zipSync({ ...files, [name]: asText(edit)(files[name] ?? new Uint8Array()) });
};

const TIE = 'accuracy:B-120:mae_mm';

// A program that is waited for holds up everything here: connections that the server closed meanwhile are let go of.
afterEach(() => new Promise((resolve) => setTimeout(resolve, 50)));
beforeAll(async () => {
  const studies = await get<{ study_id: string; name: string }[]>('/studies');
  study = studies.find(({ name }) => name === 'gannet-speeds')?.study_id ?? '';
});

describe('the words', () => {
  it('are proposed, kept with their figures as they stand, put in order and taken out', async () => {
    const first = await seen();
    expect(first.proposals.some(({ kind }) => kind === 'answer')).toBe(true);
    expect((await write('s1', 'Two hundred is as good.', [TIE])).status).toBe(200);
    expect((await write('s2', 'Beyond it rings.', [])).status).toBe(200);
    // Sent again it is the same; another sentence under its id is refused.
    expect((await write('s1', 'Two hundred is as good.', [TIE])).status).toBe(200);
    expect((await write('s1', 'Something else.', [TIE])).status).toBe(409);
    expect((await write('s1', 'From an older version.', [TIE], 99)).status).toBe(409);
    const page = await seen();
    expect(page.sentences.map(({ verdict_id }) => verdict_id)).toEqual(['s1', 's2']);
    expect(page.sentences[0]?.citations).toMatchObject([
      { address: TIE, moved: null, isThere: true },
    ]);
    const moved = await call('POST', `${at()}/words`, { order: ['s2', 's1'] });
    expect(moved.status).toBe(204);
    expect((await seen()).sentences.map(({ verdict_id }) => verdict_id)).toEqual(['s2', 's1']);
    const stale = await call('POST', `${at()}/words`, { order: ['s2'] });
    expect(stale.status).toBe(409);
    const version = (await seen()).sentences[0]?.row_version;
    expect((await call('DELETE', `${at()}/words`, { verdict_id: 's2', version })).status).toBe(204);
  });

  it('are refused where they are none, with what to do', async () => {
    for (const [words, citations, detail] of [
      ['  ', [], /write the sentence/],
      ['x'.repeat(5000), [], /too long/],
      ['A bell \u0007', [], /control character/],
      ['It stands.', ['two words'], /is no address/],
    ] as const) {
      const { status, content } = await write('s9', words, [...citations]);
      expect([400, 422]).toContain(status);
      expect(String(content.detail)).toMatch(detail);
    }
    const unknown = { ...sentence('s9', 'It stands.', []), contender_id: 'nobody' };
    expect((await call('PUT', `${at()}/words`, unknown)).status).toBe(422);
  });

  it('are proposed no more once they are thrown away', async () => {
    const [first] = (await seen()).proposals;
    if (!first) throw new Error('nothing is proposed');
    expect((await call('POST', `${at()}/words`, { key: first.key })).status).toBe(204);
    expect((await seen()).proposals.some(({ key }) => key === first.key)).toBe(false);
  });
});

describe('a revision', () => {
  let made: RevisionSeen;
  let zip: Uint8Array;

  beforeAll(async () => {
    made = await frozen();
    zip = (await file(made.number, 'report.zip')).bytes;
  });

  it('is made by a job, and has every form', async () => {
    expect(made).toMatchObject({ state: 'ready', number: 1, published_at: null, notes: [] });
    const files = Object.keys(unzipSync(zip));
    for (const name of [
      'index.html',
      'report.css',
      'report.js',
      'report.md',
      'figures.json',
      'data.zip',
    ]) {
      expect(files).toContain(name);
    }
    expect(files.some((name) => name.startsWith('photos/'))).toBe(true);
    expect(files.some((name) => /^cards\/.*-wide\.png$/.test(name))).toBe(true);
    expect(files.some((name) => /^cards\/.*-square\.svg$/.test(name))).toBe(true);
    expect(files.some((name) => /^figures\/.*\.svg$/.test(name))).toBe(true);
    const pdf = (await file(1, 'report.pdf')).bytes;
    expect(new TextDecoder('latin1').decode(pdf.slice(0, 5))).toBe('%PDF-');
    // Tagged, so that it can be read aloud; with an outline.
    const inner = new TextDecoder('latin1').decode(pdf);
    expect(inner).toContain('/StructTreeRoot');
    expect(inner).toContain('/Outlines');
    expect(zip.length).toBeLessThan(8e6);
  });

  it('gives pictures without what the camera wrote, and data without names', async () => {
    const files = unzipSync(zip);
    const photos = Object.entries(files).filter(([name]) => name.startsWith('photos/'));
    for (const [, bytes] of photos) {
      const { exif, width } = await sharp(bytes).metadata();
      expect(exif && exifReader(exif)).toBeUndefined();
      expect(width).toBeGreaterThan(100);
    }
    const data = unzipSync(files['data.zip'] ?? new Uint8Array());
    expect(Object.keys(data).some((name) => name.startsWith('photos/'))).toBe(false);
    expect(Object.keys(data)).not.toContain('history.csv');
    const specimens = new TextDecoder().decode(data['specimens.csv']);
    expect(specimens).not.toMatch(/[A-Z]\d-\d{3},?\s*$/m);
    const readings = new TextDecoder().decode(data['readings.csv']);
    expect(readings).toContain('person-');
    expect(readings).not.toMatch(/,[A-Z]{2},/);
  });

  it('follows from its data', () => {
    const { status, stdout, stderr } = verify(zip);
    expect(stderr).toBe('');
    const hash = createHash('sha256')
      .update(unzipSync(zip)['figures.json'] ?? '')
      .digest('hex');
    expect(stdout).toMatch(
      /^(\d{3}) of \1 figures follow from the data; SHA-256 of figures\.json /,
    );
    expect(stdout).toContain(`${hash}: compare it with the one at the report’s address`);
    expect(status).toBe(0);
  });

  it('does not, once a digit is another: it is named with both values', async () => {
    const figures = await figuresOf(1);
    const mae = figures.figures.find(({ address }) => address === TIE);
    if (mae?.value == null) throw new Error('no such figure');
    const digit = (value: string) =>
      value.replace(/(\d)(?=\D*$)/, (one) => String((Number(one) + 5) % 10));
    const value = String(mae.value);
    const one = verify(zip, {
      'figures.json': asText((json) =>
        json.replace(`"value": ${value}`, `"value": ${digit(value)}`),
      ),
    });
    expect(one.status).toBe(1);
    expect(one.stderr).toContain(`figure ${TIE}: stated`);
    expect(one.stderr).toContain(value);
    const page = verify(zip, {
      'index.html': asText((html) =>
        html.replace(`class="figure">${mae.printed}<`, 'class="figure">0.001<'),
      ),
    });
    expect(page.status).toBe(1);
    expect(page.stderr).toMatch(/^page accuracy:\S+: stated 0\.001; from the data /m);
  });

  it('does not, once anything else in its figures is another', () => {
    const edits = [
      [/"number": 1,/, '"number": 3,', /^head number: stated 3; from the data 1$/m],
      [/"edition": 3,/, '"edition": 4,', /^head edition: stated 4/m],
      [/"frozen_at": "2/, '"frozen_at": "3', /^head frozen_at: stated 3/m],
      [/"bytes": \d/, '"bytes": 99', /^data bytes of data\.zip: stated 99/m],
      [/"readings": \d/, '"readings": 77', /^data rows of readings: stated 77/m],
      [/"alpha": 0\.05/, '"alpha": 0.06', /^figure /m],
    ] as const;
    // All at once, each named; one of them alone is enough.
    const told = (some: readonly (typeof edits)[number][]) =>
      verify(zip, {
        'figures.json': asText((json) =>
          some.reduce((text, [from, to]) => text.replace(from, to), json),
        ),
      });
    const all = told(edits);
    expect(all.status).toBe(1);
    for (const [from, , named] of edits) expect(all.stderr, String(from)).toMatch(named);
    expect(told(edits.slice(3, 4)).status).toBe(1);
  });

  it('does not, once the page says something else that is no figure: the line is named', () => {
    const { status, stderr } = verify(zip, {
      'index.html': asText((html) => html.replaceAll('245 × 245 × 265 mm', '360 × 360 × 360 mm')),
    });
    expect(status).toBe(1);
    expect(stderr).toMatch(
      /^page its text: stated .*360 × 360 × 360 mm.*from the data .*245 × 245/m,
    );
  });

  it('does not, once a file is another, is missing or is more: each is named', () => {
    const edits: [string, (text: string) => string, RegExp][] = [
      // What is not seen on the page is as much a part of it as what is.
      [
        'index.html',
        (html) => html.replace('</main>', '<p hidden>The best machine.</p></main>'),
        /^file index\.html: stated … .*hidden/m,
      ],
      ['report.css', (css) => `${css}\n.figure{opacity:0}`, /^file report\.css: stated SHA-256 /m],
      ['report.js', (js) => `${js}\nalert(1)`, /^file report\.js: stated SHA-256 /m],
      ['extra.html', () => '<p>more</p>', /^file extra\.html: stated not listed/m],
    ];
    const card = Object.keys(unzipSync(zip)).find((name) => name.startsWith('cards/')) ?? '';
    // All at once, each named; one of them alone is enough.
    const all = Object.fromEntries(edits.map(([name, edit]) => [name, asText(edit)]));
    const { status, stderr } = verify(zip, all, [card]);
    expect(status).toBe(1);
    for (const [name, , named] of edits) expect(stderr, name).toMatch(named);
    expect(stderr).toContain(`file ${card}: stated SHA-256 `);
    expect(stderr).toContain('no such file');
    const extra = verify(zip, { 'extra.html': asText(() => '<p>more</p>') });
    expect(extra.status).toBe(1);
  });

  it('does not, once a file and what lists it are another: it is made again and compared', () => {
    const css = new TextDecoder().decode(unzipSync(zip)['index.html']);
    const changed = css.replace('</main>', '<p hidden>The best machine.</p></main>');
    const hash = (text: string) => createHash('sha256').update(text).digest('hex');
    const { status, stderr } = verify(zip, {
      'index.html': asText(() => changed),
      'figures.json': asText((json) => json.replace(hash(css), hash(changed))),
    });
    expect(status).toBe(1);
    expect(stderr).toMatch(/^file index\.html: .*made again from the data: /m);
  });

  it('does not, once a reading is another: figures and file are named', () => {
    const altered = verify(zip, {
      'data.zip': inData('readings.csv', (csv) => {
        const lines = csv.split('\n');
        const header = (lines[0] ?? '').split(',');
        const cells = (lines[1] ?? '').split(',');
        const place = header.indexOf('value_mm');
        cells[place] = String(Number(cells[place]) + 0.3);
        return [lines[0], cells.join(','), ...lines.slice(2)].join('\n');
      }),
    });
    expect(altered.status).toBe(1);
    expect(altered.stderr).toContain('data data.zip/readings.csv: stated');
    expect(altered.stderr).toMatch(/^figure accuracy:B-\d+:mae_mm: stated /m);
    expect(altered.stderr).toMatch(/\d+ of \d+ figures follow from the data/);
  });

  it('is no report where its parts are missing or damaged, and that is said', () => {
    const without = unzipSync(zip);
    delete without['figures.json'];
    const path = join(folder, 'less.zip');
    writeFileSync(path, zipSync(without, { level: 0 }));
    const run = (file: string) =>
      spawnSync(process.execPath, [join('bin', 'vergleich.mjs'), 'verify', file], {
        encoding: 'utf8',
      });
    expect(run(path)).toMatchObject({ status: 1 });
    expect(run(path).stderr).toContain('figures.json is not in it: it is no report');
    const broken = verify(zip, { 'figures.json': () => new Uint8Array([123, 34]) });
    expect(broken).toMatchObject({ status: 1 });
    expect(broken.stderr).toContain('figures.json is not JSON');
    const cut = verify(zip, { 'data.zip': (bytes) => bytes.slice(0, bytes.length / 2) });
    expect(cut.status).toBe(1);
    expect(cut.stderr).toContain('data.zip');
    expect(cut.stderr).not.toContain('at Object');
    expect(run(join(folder, 'nothing.zip'))).toMatchObject({ status: 1 });
  });

  it('is read by nobody before it is published', async () => {
    expect((await read('/r/gannet-speeds')).status).toBe(404);
    const [address] = await secretOf();
    expect((await read(`/r/${address}`)).status).toBe(404);
    expect((await read(`/r/${address}/1/`)).status).toBe(404);
    expect(await text(1, '')).toContain('Not published yet');
  });

  const secretOf = async () => {
    const [rows] = await db().sequelize.query(
      'select secret from report_addresses where study_id = $1',
      { bind: [study] },
    );
    return (rows as { secret: string }[]).map(({ secret }) => secret);
  };

  it('published in secret is read by its address only, and by name once it is open', async () => {
    const publish = (name: string | null) =>
      call('PATCH', `${at()}/revisions/1`, { publish: true, name });
    expect((await publish(null)).status).toBe(204);
    const [secret = ''] = await secretOf();
    expect(secret.length).toBeGreaterThanOrEqual(24);
    expect((await read('/r/gannet-speeds')).status).toBe(404);
    const latest = await read(`/r/${secret}`);
    expect([latest.status, latest.headers.get('location')]).toEqual([302, `/r/${secret}/1/`]);
    expect((await publish('Not a name')).status).toBe(400);
    expect((await publish('gannet-speeds')).status).toBe(204);
    const page = await read('/r/gannet-speeds/1/');
    expect(page.status).toBe(200);
    expect(page.headers.get('content-security-policy')).toContain("default-src 'none'");
    const html = await page.text();
    expect(html).toContain('Two hundred is as good.');
    expect(html).not.toContain('Not published yet');
    expect((await read('/r/gannet-speeds/1')).status).toBe(301);
    expect((await read('/r/gannet-speeds/1/report.css')).headers.get('content-type')).toContain(
      'text/css',
    );
    for (const wrong of [
      '/r/gannet-speeds/2/',
      '/r/gannet-speeds/1/../../api',
      '/r/x',
      '/r/gannet-speeds/1/nothing',
      '/r/%22/1/',
    ]) {
      expect((await read(wrong)).status).toBe(404);
    }
    expect((await call('DELETE', `${at()}/revisions/1`)).status).toBe(409);
  });

  it('gives cards of what is in it, in every size and look', async () => {
    const model = await modelOf(1);
    const card = (query: string) => fetch(`${url()}/api/v1${at()}/revisions/1/card?${query}`);
    const page = await read(`/studies/${study}/report/cards?of=1`);
    expect(page.status).toBe(200);
    expect(readOn(parse(await page.text())).filter(isForPrograms)).toEqual([]);
    const chart = model.charts[0]?.id ?? '';
    for (const [size, width] of [
      ['wide', 1920],
      ['square', 1080],
    ] as const) {
      for (const theme of ['light', 'dark', 'clear']) {
        const answer = await card(`subject=chart/${chart}&size=${size}&theme=${theme}&as=png`);
        expect(answer.headers.get('content-type')).toBe('image/png');
        const picture = await sharp(Buffer.from(await answer.arrayBuffer())).metadata();
        expect([picture.width, picture.height]).toEqual([width, 1080]);
        expect(picture.hasAlpha).toBe(theme === 'clear');
      }
    }
    const photos = await card(`subject=photos/${model.photos[0]?.id}&size=wide&theme=light&as=svg`);
    expect(await photos.text()).toContain('data:image/jpeg;base64,');
    expect((await card('subject=chart/nothing&size=wide&theme=light&as=svg')).status).toBe(404);
    expect((await card('subject=../x&size=wide&theme=light&as=svg')).status).toBe(400);
    expect((await card('subject=chart/x&size=huge&theme=light&as=svg')).status).toBe(400);
  });

  const modelOf = async (number: number) => {
    const [rows] = await db().sequelize.query(
      'select model from report_revisions where study_id = $1 and "number" = $2',
      { bind: [study, number] },
    );
    return (rows as { model: ReportModel }[])[0]?.model as ReportModel;
  };
});

describe('more evidence', () => {
  it('marks the sentences whose figures moved, until somebody says that they stand', async () => {
    const specimens = await get<{ specimen_id: string; print_id: string }[]>(
      `/studies/${study}/rows/specimens`,
    );
    const prints = await get<{ print_id: string; contender_id: string; artefact_id: string }[]>(
      `/studies/${study}/rows/prints`,
    );
    const dimensions = await get<
      { artefact_id: string; dimension_id: string; nominal_mm: number }[]
    >(`/studies/${study}/rows/dimensions`);
    const measured = new Set(dimensions.map((row) => row.artefact_id));
    const own = prints.find((row) => row.contender_id === 'B-120' && measured.has(row.artefact_id));
    const specimen = specimens.find((row) => row.print_id === own?.print_id)?.specimen_id;
    const instruments = await get<{ instrument_id: string }[]>(
      `/studies/${study}/rows/instruments`,
    );
    const readings = dimensions
      .filter((row) => row.artefact_id === own?.artefact_id)
      .slice(0, 3)
      .map((row, index) => ({
        reading_id: `0190a000-0000-7000-8000-00000000000${index}`,
        specimen_id: specimen,
        dimension_id: row.dimension_id,
        trial: 40,
        value_mm: row.nominal_mm + 9,
        instrument_id: instruments[0]?.instrument_id,
        operator: 'KM',
        at: '2026-04-20T10:00:00Z',
      }));
    for (const reading of readings) {
      const { status } = await call('POST', `/studies/${study}/readings`, reading);
      expect(status).toBe(201);
    }
    const page = await fresh();
    const [citation] = page.sentences[0]?.citations ?? [];
    expect(citation?.moved).toMatchObject({ why: 'value' });
    const { row_version } = page.sentences[0] ?? { row_version: 0 };
    expect((await write('s1', 'Two hundred is as good.', [TIE], row_version)).status).toBe(200);
    expect((await seen()).sentences[0]?.citations[0]?.moved).toBeNull();
  });

  /** The page once its figures are made anew. */
  const fresh = async (): Promise<ReportPage> => {
    for (;;) {
      const page = await seen();
      if (!page.isStale) return page;
      await new Promise((resolve) => setTimeout(resolve, 200));
    }
  };

  it('makes a second revision that says what changed; the first can be withdrawn', async () => {
    const second = await frozen();
    expect(second).toMatchObject({ state: 'ready', number: 2 });
    const changes = await get<{ figures: { address: string }[]; data: { table: string }[] }>(
      `${at()}/revisions/2/changes?since=1`,
    );
    expect(changes.figures.map(({ address }) => address)).toContain(TIE);
    expect(changes.data.map(({ table }) => table)).toContain('readings');
    expect(await text(2, '')).toContain('What changed since report 1');
    expect(
      (await call('PATCH', `${at()}/revisions/2`, { publish: true, name: 'gannet-speeds' })).status,
    ).toBe(204);
    expect((await read('/r/gannet-speeds')).headers.get('location')).toBe('/r/gannet-speeds/2/');
    expect((await call('PATCH', `${at()}/revisions/2`, { withdraw: ' ' })).status).toBe(400);
    const why = 'A reading of <b>nine</b> millimetres was wrong.';
    expect((await call('PATCH', `${at()}/revisions/2`, { withdraw: why })).status).toBe(204);
    const page = await (await read('/r/gannet-speeds/2/')).text();
    expect(page).toContain('This report was withdrawn on');
    expect(page).toContain('&#60;b&#62;nine');
    // Every form says so that can; those that cannot are no longer given.
    const markdown = await (await read('/r/gannet-speeds/2/report.md')).text();
    expect(markdown).toMatch(/^[^]{0,200}withdrawn/i);
    const all = unzipSync(
      new Uint8Array(await (await read('/r/gannet-speeds/2/report.zip')).arrayBuffer()),
    );
    expect(new TextDecoder().decode(all['WITHDRAWN.txt'])).toContain('nine');
    expect((await read('/r/gannet-speeds/2/report.pdf')).status).toBe(410);
    expect((await read('/r/gannet-speeds')).headers.get('location')).toBe('/r/gannet-speeds/1/');
    const again = await call('PATCH', `${at()}/revisions/2`, { publish: true, name: null });
    expect(again.status).toBe(409);
  });

  it('one revision is made at a time; one that nobody has read is thrown away', async () => {
    const [one, other] = await Promise.all([
      call('POST', `${at()}/revisions`, {}),
      call('POST', `${at()}/revisions`, {}),
    ]);
    expect([one.status, other.status].sort()).toEqual([202, 409]);
    for (;;) {
      const [latest] = await revisions();
      if (latest?.state === 'ready') break;
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
    expect((await call('DELETE', `${at()}/revisions/3`)).status).toBe(204);
    expect((await revisions()).map(({ number }) => number)).toEqual([2, 1]);
    expect((await call('DELETE', `${at()}/revisions/3`)).status).toBe(404);
    expect((await call('DELETE', `${at()}/revisions/0`)).status).toBe(404);
  });
});

describe('a revision that is being made', () => {
  it('is stopped by throwing it away, and the next one has its number', async () => {
    const first = await call('POST', `${at()}/revisions`, {});
    for (;;) {
      const [one] = await revisions();
      if (one?.state === 'making') break;
      await new Promise((resolve) => setTimeout(resolve, 20));
    }
    expect((await call('DELETE', `${at()}/revisions/${Number(first.content.number)}`)).status).toBe(
      204,
    );
    const next = await frozen();
    expect(next).toMatchObject({ state: 'ready', number: first.content.number });
    expect((await call('DELETE', `${at()}/revisions/${next.number}`)).status).toBe(204);
  });
});

describe('settings and words', () => {
  it('travel with the study’s package', async () => {
    const about = await get<{ row_version: number }>(`/studies/${study}`);
    const report = { author: 'A club', disclosure: 'Bought.', parts: ['answer', 'data'] };
    const { status } = await call('PATCH', `/studies/${study}`, {
      version: about.row_version,
      change: { report },
    });
    expect(status).toBe(200);
    const twice = await call('PATCH', `/studies/${study}`, {
      version: about.row_version + 1,
      change: { report: { parts: ['answer', 'answer'] } },
    });
    expect([twice.status, String(twice.content.detail)]).toEqual([
      400,
      expect.stringContaining('names a part twice'),
    ]);
    const answer = await fetch(`${url()}/api/v1/studies/${study}/package`);
    const files = unzipSync(new Uint8Array(await answer.arrayBuffer()));
    const descriptor = JSON.parse(new TextDecoder().decode(files['datapackage.json'])) as {
      vergleich: { report: unknown };
    };
    expect(descriptor.vergleich.report).toMatchObject(report);
    expect(new TextDecoder().decode(files['verdicts.csv'])).toContain('Two hundred is as good.');
    expect(new TextDecoder().decode(files['verdict_figures.csv'])).toContain(TIE);
  });
});

describe('without a browser that prints', () => {
  it('everything is made but the PDF, and the reason is said', async () => {
    // It has the queue to itself: whoever is free makes a report, and the other one can print.
    await kill(server().child);
    const before = process.env.CHROMIUM;
    process.env.CHROMIUM = join(folder, 'no-such-browser');
    const other = await startServer(databaseUrl(), {});
    process.env.CHROMIUM = before;
    try {
      const api = `${other.url}/api/v1${at()}/revisions`;
      const post = await fetch(api, {
        method: 'POST',
        body: '{}',
        headers: { 'content-type': 'application/json' },
      });
      const { number } = (await post.json()) as { number: number };
      let one: RevisionSeen | undefined;
      while (one?.state !== 'ready') {
        await new Promise((resolve) => setTimeout(resolve, 200));
        const all = (await (await fetch(api)).json()) as RevisionSeen[];
        one = all.find((each) => each.number === number);
        expect(one?.state).not.toBe('failed');
      }
      expect(one.notes).toEqual([expect.stringMatching(/^No PDF: there is no Chromium/)]);
      expect((await fetch(`${other.url}${at()}/${number}/report.pdf`)).status).toBe(404);
      expect((await fetch(`${other.url}${at()}/${number}/report.zip`)).status).toBe(200);
    } finally {
      await kill(other.child);
    }
  });
});

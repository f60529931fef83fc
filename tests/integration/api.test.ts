import Ajv from 'ajv/dist/2020';
import { OpenAPIClientAxios, type Document, type OpenAPIV3_1 } from 'openapi-client-axios';
import { v7 as uuid } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { execute } from '../../src/data/database';
import { apiOf } from '../support/api';
import { freshDatabase } from '../support/database';
import { kill, startServer, type Server } from '../support/server';

type Fresh = Awaited<ReturnType<typeof freshDatabase>>;
let fresh: Fresh;
let server: Server;
const api = apiOf(() => server.url);

beforeAll(async () => {
  fresh = await freshDatabase([]);
  server = await startServer(fresh.url);
});
afterAll(async () => {
  await kill(server.child);
  await fresh.drop();
});

/** A study with a machine, its profile, a part of one dimension and a caliper. */
async function smallStudy(): Promise<string> {
  const { content } = await api.call('POST', '/studies', { title: 'Clips', intent: 'machines' });
  const study = String(content.study_id);
  const add = async (table: string, row: object) => {
    const { status } = await api.call('POST', `/studies/${study}/rows/${table}`, row);
    expect([table, status]).toEqual([table, 201]);
  };
  await add('machines', { machine_id: 'auklet', name: 'Auklet 19' });
  await add('profiles', { profile_id: 'stock', name: 'Stock', kind: 'stock' });
  await add('materials', { material_id: 'pla', type: 'PLA' });
  await add('contenders', {
    contender_id: 'a',
    label: 'Auklet',
    machine_id: 'auklet',
    profile_id: 'stock',
  });
  await add('artefacts', { artefact_id: 'clip', name: 'Clip' });
  await add('dimensions', {
    artefact_id: 'clip',
    dimension_id: 'width',
    name: 'width',
    axis: 'x',
    kind: 'external',
    nominal_mm: 20,
  });
  await add('instruments', {
    instrument_id: 'cal',
    name: 'Caliper',
    kind: 'caliper',
    resolution_mm: 0.01,
  });
  return study;
}
const ended = (at: number) => ({
  print: {
    print_id: `P-${at}`,
    contender_id: 'a',
    artefact_id: 'clip',
    material_id: 'pla',
    repeat: at,
    outcome: 'success',
    print_s: 600 + at,
  },
  specimens: [{ specimen_id: `S-${at}`, print_id: `P-${at}`, copy: 1 }],
});
const reading = (specimen: string, value_mm: number) => ({
  reading_id: uuid(),
  specimen_id: specimen,
  dimension_id: 'width',
  trial: 1,
  value_mm,
  instrument_id: 'cal',
  operator: 'TS',
  at: '2026-03-02T09:12:00+01:00',
});

describe('a client that is made of the description', () => {
  it('makes a study, prints and readings, and reads what follows from them', async () => {
    const document = await api.get<Document & OpenAPIV3_1.Document>('/openapi.json');
    const maker = new OpenAPIClientAxios({
      definition: document,
      withServer: { url: server.url },
      axiosConfigDefaults: { headers: { connection: 'close' } },
    });
    const client = await maker.init();
    const ajv = new Ajv({ strict: false, validateFormats: false });
    ajv.addSchema(document, 'api');
    /** Does an operation; what is answered must be as the description has it. */
    const ask = async (name: string, parameters: object | null, content?: object) => {
      const operation = client[name];
      if (!operation) throw new Error(`The description has no ${name}.`);
      const { status, data } = await operation(parameters as never, content);
      const { path, method } = maker.getOperation(name) ?? {};
      const place = [
        'paths',
        path ?? '',
        method ?? '',
        'responses',
        String(status),
        'content',
        'application/json',
        'schema',
      ];
      const pointer = place.map((part) =>
        encodeURIComponent(part.replaceAll('~', '~0').replaceAll('/', '~1')),
      );
      const check = ajv.getSchema(`api#/${pointer.join('/')}`);
      expect([name, check?.(data), check?.errors]).toEqual([name, true, null]);
      return data as Record<string, unknown>;
    };
    const { study_id: study } = await ask('post_studies', null, {
      title: 'Clips',
      intent: 'machines',
    });
    const row = (table: string, content: object) =>
      ask(`post_studies_study_rows_table_${table}`, { study }, content);
    await row('machines', { machine_id: 'auklet', name: 'Auklet 19' });
    await row('machines', { machine_id: 'dunlin', name: 'Dunlin 18' });
    await row('profiles', { profile_id: 'stock', name: 'Stock', kind: 'stock' });
    await row('materials', { material_id: 'pla', type: 'PLA' });
    await row('artefacts', { artefact_id: 'clip', name: 'Clip' });
    await row('dimensions', {
      artefact_id: 'clip',
      dimension_id: 'width',
      name: 'width',
      axis: 'x',
      kind: 'external',
      nominal_mm: 20,
    });
    await row('instruments', {
      instrument_id: 'cal',
      name: 'Caliper',
      kind: 'caliper',
      resolution_mm: 0.01,
    });
    const readings: object[] = [];
    for (const [contender_id, machine_id, off] of [
      ['a', 'auklet', 0.1],
      ['d', 'dunlin', -0.05],
    ] as const) {
      await row('contenders', { contender_id, label: machine_id, machine_id, profile_id: 'stock' });
      for (const repeat of [1, 2, 3]) {
        const print_id = `${contender_id}-${repeat}`;
        const print = {
          print_id,
          contender_id,
          artefact_id: 'clip',
          material_id: 'pla',
          repeat,
          outcome: 'success',
          print_s: 600,
        };
        await ask(
          'post_studies_study_prints',
          { study },
          { print, specimens: [{ specimen_id: print_id, print_id, copy: 1 }] },
        );
        readings.push(reading(print_id, 20 + off + 0.01 * (repeat - 2)));
      }
    }
    await ask('post_studies_study_readings', { study }, readings[0]);
    await ask('post_studies_study_readings_batch', { study }, { readings: readings.slice(1) });
    expect(await ask('get_studies_study_readings', { study })).toHaveLength(6);
    const about = await ask('get_studies_study', { study });
    const change = { version: about.row_version, change: { reference: 'a' } };
    await ask('patch_studies_study', { study }, change);
    const results = await ask('get_studies_study_results_section', { study, section: 'accuracy' });
    const accuracy = results.accuracy as {
      contenders: { contender_id: string; mean_deviation_mm?: number }[];
    };
    expect(JSON.stringify(accuracy)).toContain('"d"');
    expect(await ask('get_studies', null)).toMatchObject([
      { study_id: study, prints: 6, readings: 6 },
    ]);
  });
});

describe('what is sent again with a key', () => {
  const key = () => ({ 'idempotency-key': uuid() });

  it('is done once and has the same answer, also when it comes twice at once', async () => {
    const sent = { title: 'Once', intent: 'machines' };
    const same = key();
    const answers = await Promise.all(
      [1, 2, 3, 4].map(() => api.call('POST', '/studies', sent, same)),
    );
    const again = await api.call('POST', '/studies', sent, same);
    const made = answers.filter(({ status }) => status === 201);
    expect(made.length).toBeGreaterThanOrEqual(1);
    expect(new Set([...made, again].map(({ content }) => content.study_id)).size).toBe(1);
    // Who came at the same moment, before the answer was there, is told that it is done.
    expect(answers.every(({ status }) => status === 201 || status === 409)).toBe(true);
    const studies = await api.get<{ title: string }[]>('/studies');
    expect(studies.filter(({ title }) => title === 'Once')).toHaveLength(1);
  });

  it('is refused with another content, and free again where it was refused', async () => {
    const study = await smallStudy();
    const at = `/studies/${study}/rows/planned`;
    const own = key();
    const row = { contender_id: 'a', artefact_id: 'clip', material_id: 'nylon', repeats: 2 };
    expect((await api.call('POST', at, row, own)).status).toBe(422);
    // It was not done, so that it may be sent as it should be.
    const right = { ...row, material_id: 'pla' };
    const first = await api.call('POST', at, right, own);
    expect(first.status).toBe(201);
    expect(await api.call('POST', at, right, own)).toEqual(first);
    const other = await api.call('POST', at, { ...right, repeats: 3 }, own);
    expect(other).toMatchObject({
      status: 422,
      content: { detail: expect.stringContaining('another request') as string },
    });
    expect((await api.call('POST', at, right, { 'idempotency-key': 'short' })).status).toBe(400);
  });

  it('is not done again though the process died before its answer was kept', async () => {
    const study = await smallStudy();
    const own = key();
    const at = `/studies/${study}/prints`;
    await api.call('POST', at, ended(1), own);
    await execute(fresh.db, 'update kept_answers set status = null where key = $1', [
      own['idempotency-key'],
    ]);
    const again = await api.call('POST', at, ended(1), own);
    expect(again).toMatchObject({
      status: 409,
      content: { detail: expect.stringContaining('done already') as string },
    });
  });
});

describe('entity tags', () => {
  const raw = (path: string, init: RequestInit = {}) => fetch(`${server.url}/api/v1${path}`, init);
  const patch = (path: string, change: object, tag: string) =>
    raw(path, {
      method: 'PATCH',
      headers: { 'content-type': 'application/json', 'if-match': tag },
      body: JSON.stringify({ change }),
    });

  it('name the version of a record: a change of an old one is refused, with the present one', async () => {
    const study = await smallStudy();
    for (const [path, change, other] of [
      [`/studies/${study}`, { reference: 'a' }, { title: 'Another' }],
      [`/studies/${study}/rows/machines/auklet`, { firmware: '1.2' }, { firmware: '1.3' }],
    ] as const) {
      const first = await raw(path);
      const tag = first.headers.get('etag') ?? '';
      expect(tag).toMatch(/^"\d+"$/);
      expect((await raw(path, { headers: { 'if-none-match': tag } })).status).toBe(304);
      const changed = await patch(path, change, tag);
      expect([changed.status, changed.headers.get('etag') === tag]).toEqual([200, false]);
      const refused = await patch(path, other, tag);
      expect(refused.status).toBe(412);
      expect(await refused.json()).toMatchObject({ current: change });
      expect((await patch(path, other, 'W/"x"')).status).toBe(400);
    }
    // What is taken out needs no content where its version is said so.
    const row = `/studies/${study}/rows/instruments/cal`;
    const tag = (await raw(row)).headers.get('etag') ?? '';
    expect((await raw(row, { method: 'DELETE', headers: { 'if-match': tag } })).status).toBe(204);
    expect((await raw(row)).status).toBe(404);
  });

  it('of lists and results change when these do', async () => {
    const study = await smallStudy();
    const path = `/studies/${study}/rows/machines`;
    const tag = (await raw(path)).headers.get('etag') ?? '';
    expect((await raw(path, { headers: { 'if-none-match': `"x", ${tag}` } })).status).toBe(304);
    await api.call('POST', path, { machine_id: 'dunlin', name: 'Dunlin 18' });
    const after = await raw(path, { headers: { 'if-none-match': tag } });
    expect([after.status, ((await after.json()) as object[]).length]).toEqual([200, 2]);
  });
});

describe('lists', () => {
  it('are had page by page, and nothing that comes meanwhile hides or doubles an item', async () => {
    const study = await smallStudy();
    await api.call('POST', `/studies/${study}/prints`, ended(1));
    const all = Array.from({ length: 23 }, (_, at) => ({
      ...reading('S-1', 20 + at / 100),
      trial: at + 1,
    }));
    const path = `/studies/${study}/readings`;
    expect((await api.call('POST', `${path}/batch`, { readings: all })).status).toBe(201);
    const found: string[] = [];
    let next: string | null = `/api/v1${path}?limit=10`;
    while (next !== null) {
      const answer: Response = await fetch(server.url + next);
      const page = (await answer.json()) as { reading_id: string }[];
      found.push(...page.map((one) => one.reading_id));
      [, next = null] = /^<([^>]+)>; rel="next"$/.exec(answer.headers.get('link') ?? '') ?? [];
      if (found.length === 10) {
        // One that was on the first page is taken back, and one comes.
        const at = '2026-03-02T10:00:00+01:00';
        await api.call('DELETE', `${path}/${found[2]}`, { at });
        await api.call('POST', path, { ...reading('S-1', 21), trial: 30 });
      }
    }
    expect(found.slice(0, 23)).toEqual(all.map((one) => one.reading_id));
    expect(found).toHaveLength(24);
  });

  it('say what is no page', async () => {
    const at = `/studies?limit=`;
    for (const limit of ['0', '-3', '1001', 'ten', '2.5']) {
      expect((await api.call('GET', at + limit)).status).toBe(400);
    }
    expect(await api.call('GET', '/studies?limit=2&after=Im5vYm9keSI')).toMatchObject({
      status: 410,
    });
    const study = await smallStudy();
    expect((await api.call('GET', `/studies/${study}/rows/machines?limit=1`)).status).toBe(200);
  });
});

describe('how far a study has come', () => {
  type Came = { steps: { key: string; done: number; due: number }[]; guide: object | null };
  const stepOf = async (study: string, key: string) =>
    (await api.get<Came>(`/studies/${study}/progress`)).steps.find((step) => step.key === key);

  it('is counted step by step, and follows what is entered', async () => {
    const study = await smallStudy();
    expect(await stepOf(study, 'contenders')).toMatchObject({ done: 1, due: 2 });
    expect(await stepOf(study, 'plan')).toMatchObject({ done: 0, due: 1 });
    expect(await stepOf(study, 'question')).toMatchObject({ done: 0, due: 1 });
    const version = (await api.get<{ row_version: number }>(`/studies/${study}`)).row_version;
    await api.call('PATCH', `/studies/${study}`, { version, change: { question: 'Which?' } });
    expect(await stepOf(study, 'question')).toMatchObject({ done: 1, due: 1 });
    expect((await api.get<Came>(`/studies/${study}/progress`)).guide).toBeNull();
  });

  it('is a guide in a study for practice, until it is archived', async () => {
    const made = await api.call('POST', '/studies', {
      title: 'My first study',
      intent: 'machines',
      labels: ['practice'],
    });
    const study = String(made.content.study_id);
    const guide = async () => (await api.get<Came>(`/studies/${study}/progress`)).guide;
    expect(await guide()).toMatchObject({ question: false, close: false });
    await api.call('PUT', `/studies/${study}/shelf`, { isArchived: true });
    expect(await guide()).toMatchObject({ question: false, close: true });
    const long = { title: 'x', intent: 'machines', labels: ['x'.repeat(41)] };
    expect((await api.call('POST', '/studies', long)).status).toBe(400);
  });
});

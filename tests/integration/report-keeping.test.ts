import { cpSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { unzipSync } from 'fflate';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { dropUnnamedContent } from '../../src/data';
import type { ReportPage } from '../../src/server/report/page';
import type { RevisionSeen } from '../../src/server/report/revisions';
import { resultsAreKept } from '../support/kept-results';
import { apiOf, type Api } from '../support/api';
import { freshDatabase } from '../support/database';
import { kill, startServer, type Server } from '../support/server';

/** A small demo study, as an example that says when its reports were frozen. */
const folder = mkdtempSync(join(tmpdir(), 'report-keeping-'));
const FROZEN = ['2026-03-10T22:00:00+01:00', '2026-03-28T17:20:00+01:00'];

let server: Server;
let fresh: Awaited<ReturnType<typeof freshDatabase>>;
let api: Api;
let study: string;

const start = async () => {
  server = await startServer(fresh.url, { studies: [join(folder, 'example')] });
};
beforeAll(async () => {
  const example = join(folder, 'example');
  cpSync(join('demo', 'gannet-update'), example, { recursive: true });
  const path = join(example, 'datapackage.json');
  const descriptor = JSON.parse(readFileSync(path, 'utf8')) as { vergleich: object };
  const report = { author: 'A club', disclosure: 'Bought.', frozen: FROZEN };
  Object.assign(descriptor.vergleich, { report });
  writeFileSync(path, JSON.stringify(descriptor));
  fresh = await freshDatabase();
  process.env.DEMO_REPORTS = '1';
  await start();
  api = apiOf(() => server.url);
  const [one] = await api.get<{ study_id: string }[]>('/studies');
  study = one?.study_id ?? '';
});
afterAll(async () => {
  delete process.env.DEMO_REPORTS;
  await kill(server.child);
  await fresh.drop();
  rmSync(folder, { recursive: true, force: true });
});

const at = () => `/studies/${study}/report`;
const revisions = () => api.get<RevisionSeen[]>(`${at()}/revisions`);
const read = (path: string) => fetch(server.url + path, { redirect: 'manual' });
const until = async (holds: () => Promise<boolean>): Promise<void> => {
  while (!(await holds())) await new Promise((resolve) => setTimeout(resolve, 50));
};
const rows = async <Row>(sql: string, bind: unknown[] = []): Promise<Row[]> =>
  (await fresh.db.sequelize.query(sql, { ...(bind.length > 0 && { bind }) }))[0] as Row[];
const dataOf = async (number: number) =>
  unzipSync(
    new Uint8Array(await (await read(`/r/gannet-update/${number}/data.zip`)).arrayBuffer()),
  );

describe('an example study', () => {
  it('has its reports as of the days that it names, each published', async () => {
    await until(async () => {
      const all = await revisions();
      return (
        all.length === 2 && all.every((one) => one.state === 'ready' && one.published_at !== null)
      );
    });
    const all = await revisions();
    expect(all.map(({ frozen_at }) => Date.parse(frozen_at ?? ''))).toEqual(
      [...FROZEN].reverse().map(Date.parse),
    );
    const count = async (number: number) =>
      new TextDecoder()
        .decode((await dataOf(number))['prints.csv'])
        .trim()
        .split('\n').length;
    expect(await count(1)).toBeLessThan(await count(2));
  });

  it('does not have them made once more at the next start', async () => {
    await kill(server.child);
    await start();
    await until(async () => (await read('/r/gannet-update')).status === 302);
    expect((await revisions()).map(({ number }) => number)).toEqual([2, 1]);
  });

  it('has one that failed made again at the next start, and by hand', async () => {
    const isReady = async () =>
      (await revisions()).find(({ number }) => number === 2)?.state === 'ready';
    const again = () => api.call('POST', `${at()}/revisions/2`, { action: 'make-again' });
    const fail = () =>
      rows(`update report_revisions set state = 'failed', message = 'the process ended',
              published_at = null where number = 2`);
    expect((await again()).status, 'a report that is ready').toBe(409);
    await kill(server.child);
    await fail();
    await start();
    await until(async () => (await read('/r/gannet-update/2/')).status === 200);
    await fail();
    expect((await again()).status).toBe(204);
    await until(isReady);
    const publish = { publish: true, name: 'gannet-update' };
    expect((await api.call('PATCH', `${at()}/revisions/2`, publish)).status).toBe(204);
    expect(await dataOf(2)).toHaveProperty('prints.csv');
  });

  it('says on an older report that another is newer, and to machines that it is open', async () => {
    const [older, newest] = [await read('/r/gannet-update/1/'), await read('/r/gannet-update/2/')];
    expect(await older.text()).toMatch(/<a href="\.\.\/2\/">Report 2<\/a> is newer/);
    expect(await newest.text()).not.toContain('is newer');
    expect(newest.headers.get('x-robots-tag')).toBeNull();
    const [address] = await rows<{ secret: string }>('select secret from report_addresses');
    const secret = await read(`/r/${address?.secret}/2/`);
    expect([secret.status, secret.headers.get('x-robots-tag')]).toEqual([200, 'noindex']);
  });
});

describe('what was published', () => {
  it('is kept, however old it is; what was thrown away is not', async () => {
    const asked = await api.call('POST', `${at()}/revisions`, {});
    const number = Number(asked.content.number);
    await until(async () => (await revisions())[0]?.state === 'ready');
    const files = () =>
      rows<{ n: number }>(
        'select count(*)::int as n from report_files r join stored_files s using (sha256)',
      );
    await rows("update stored_files set stored_at = now() - interval '3 days'");
    const [before] = await files();
    await dropUnnamedContent(fresh.db);
    expect(await files()).toEqual([before]);
    expect((await read('/r/gannet-update/1/report.zip')).status).toBe(200);
    const kept = () => rows<{ n: number }>('select count(*)::int as n from stored_files');
    const [all] = await kept();
    expect((await api.call('DELETE', `${at()}/revisions/${number}`)).status).toBe(204);
    await dropUnnamedContent(fresh.db);
    const [left] = await kept();
    expect(left?.n).toBeLessThan(all?.n ?? 0);
    expect((await read('/r/gannet-update/2/report.zip')).status).toBe(200);
  });

  it('leaves the results as they are: neither words of it nor its publishing make a figure anew', async () => {
    await api.get(`/studies/${study}/results/accuracy`);
    await resultsAreKept(fresh.db, study, ['accuracy']);
    const kept = () =>
      rows<{ section: string; revision: string }>(
        "select section, revision from results where section = 'accuracy'",
      );
    const before = await kept();
    expect(before.length).toBeGreaterThan(0);
    const about = await api.get<{ row_version: number }>(`/studies/${study}`);
    const change = { report: { author: 'Another club', disclosure: 'Bought.', frozen: FROZEN } };
    const { status } = await api.call('PATCH', `/studies/${study}`, {
      version: about.row_version,
      change,
    });
    expect(status).toBe(200);
    await api.call('PATCH', `${at()}/revisions/2`, { publish: true, name: 'gannet-update' });
    const page = await api.get<ReportPage>(at());
    expect([page.isStale, page.settings.author]).toEqual([false, 'Another club']);
    expect(await kept()).toEqual(before);
  });

  it('counts as the station’s work, with the answer and the disclosure', async () => {
    const rail = async () => {
      const { stations } = await api.get<{
        stations: { key: string; done: number; due: number }[];
      }>(`/studies/${study}/progress`);
      const { done, due } = stations.find(({ key }) => key === 'report') ?? {};
      return `${done}/${due}`;
    };
    expect(await rail()).toBe('2/3');
    await api.call('PUT', `${at()}/words`, {
      verdict_id: 'a',
      contender_id: null,
      kind: 'answer',
      text: 'Yes.',
      rests_on: [],
      version: null,
    });
    expect(await rail()).toBe('3/3');
  });

  it('has a name that no other report has', async () => {
    await api.call('POST', '/studies', { title: 'Another', intent: 'machines' });
    const other =
      (await api.get<{ study_id: string; title: string }[]>('/studies')).find(
        ({ title }) => title === 'Another',
      )?.study_id ?? '';
    // A report of the other study, as if it had been made.
    await rows('insert into report_addresses (study_id, secret) values ($1, $2)', [
      other,
      'secret-of-another-study',
    ]);
    await rows(`insert into report_revisions (study_id, "number", state) values ($1, 1, 'ready')`, [
      other,
    ]);
    const path = `/studies/${other}/report/revisions/1`;
    const taken = await api.call('PATCH', path, { publish: true, name: 'gannet-update' });
    expect([taken.status, taken.content.detail]).toEqual([
      409,
      'Another report is read at /r/gannet-update.',
    ]);
    // Nothing of it was done.
    const [one] = await rows<{ published_at: Date | null }>(
      'select published_at from report_revisions where study_id = $1',
      [other],
    );
    expect(one?.published_at).toBeNull();
  });

  it('is not read while its study is put away, and is again once it is brought back', async () => {
    const about = await api.get<{ title: string }>(`/studies/${study}`);
    expect((await api.call('DELETE', `/studies/${study}`, { title: about.title })).status).toBe(
      204,
    );
    expect((await read('/r/gannet-update')).status).toBe(404);
    expect((await read('/r/gannet-update/1/')).status).toBe(404);
    expect((await api.call('POST', `/studies/${study}`, { action: 'restore' })).status).toBe(204);
    expect((await read('/r/gannet-update/1/')).status).toBe(200);
  });

  it('has at most so many sentences as somebody reads', async () => {
    await rows(
      `insert into verdicts (study_id, verdict_id, kind, "order", text)
       select $1, 'many-' || n, 'plus', n, 'A sentence.' from generate_series(1, 499) as n`,
      [study],
    );
    const { status, content } = await api.call('PUT', `${at()}/words`, {
      verdict_id: 'one-more',
      contender_id: null,
      kind: 'plus',
      text: 'And?',
      rests_on: [],
      version: null,
    });
    expect([status, content.detail]).toEqual([422, 'A report has at most 500 sentences.']);
    await rows(`delete from verdicts where study_id = $1 and verdict_id like 'many-%'`, [study]);
  });
});

describe('names in the data', () => {
  it('stay where their owner wants them to', async () => {
    const about = await api.get<{ row_version: number }>(`/studies/${study}`);
    const change = { report: { with_names: true, frozen: FROZEN } };
    await api.call('PATCH', `/studies/${study}`, { version: about.row_version, change });
    const asked = await api.call('POST', `${at()}/revisions`, {});
    await until(async () => (await revisions())[0]?.state === 'ready');
    const number = Number(asked.content.number);
    const zip = await read(`/studies/${study}/report/${number}/data.zip`);
    const named = unzipSync(new Uint8Array(await zip.arrayBuffer()));
    const [plain, own] = [(await dataOf(2))['readings.csv'], named['readings.csv']].map((bytes) =>
      new TextDecoder().decode(bytes),
    );
    expect(plain).toContain('person-');
    expect(own).not.toContain('person-');
    const initials = readFileSync(join('demo', 'gannet-update', 'readings.csv'), 'utf8').match(
      /,([A-Z]{2}),/,
    )?.[1];
    expect(own).toContain(`,${initials},`);
    await api.call('DELETE', `${at()}/revisions/${number}`);
  });
});

describe('a process that is killed while it makes a report', () => {
  it('leaves a report that the next one makes to its end, and no browser', async () => {
    const asked = await api.call('POST', `${at()}/revisions`, {});
    await until(async () => (await revisions())[0]?.step?.startsWith('printing') === true);
    const { pid } = server.child;
    await kill(server.child);
    await start();
    await until(async () => (await revisions())[0]?.state === 'ready');
    expect((await revisions())[0]?.number).toBe(Number(asked.content.number));
    // What was put into temporary folders is cleared away.
    const root = join(tmpdir(), `vergleich-${process.getuid?.() ?? 'user'}`);
    await until(() => Promise.resolve(!readdirSync(root).includes(String(pid))));
  });
});

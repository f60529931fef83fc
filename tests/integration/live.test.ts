import { once } from 'node:events';
import { v7 as uuid } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { apiOf, type Api } from '../support/api';
import { listenTo } from '../support/events';
import { createFleet } from '../support/fleet';
import { served } from '../support/served';
import { kill, startServer, type Server } from '../support/server';

// Two processes on one database: what one is told, those who listen to the other hear.
const { call, get, url, db, databaseUrl } = served();
let other: Server;
let study: string;
let there: Api;

beforeAll(async () => {
  other = await startServer(databaseUrl());
  there = apiOf(() => other.url);
  study = await createFleet(url(), 2);
});
afterAll(() => kill(other.child));

const liveAt = (base: string, id = study) => `${base}/api/v1/studies/${id}/live`;
const renamed = (api: Pick<Api, 'call'>, name: string, headers = {}) =>
  api.call(
    'POST',
    `/studies/${study}/rows/materials`,
    { material_id: uuid(), type: 'PLA', lot: name },
    headers,
  );

describe('what somebody does to a study', () => {
  it('is heard at once by who listens to either process, with what and by which page', async () => {
    const [here, far] = await Promise.all([listenTo(liveAt(url())), listenTo(liveAt(other.url))]);
    expect(here.headers.get('content-type')).toBe('text/event-stream');
    await expect.poll(() => [here.heard.length, far.heard.length]).toEqual([1, 1]);
    const [first] = here.heard;
    expect(first?.event).toBe('revision');
    const tab = uuid();
    const said = performance.now();
    expect((await renamed({ call }, 'a', { 'x-tab': tab })).status).toBe(201);
    await expect.poll(() => far.heard.length, { interval: 5 }).toBe(2);
    // Told, not asked for: whoever asks does so every five seconds. (On a quiet machine it takes some 20 ms.)
    expect(performance.now() - said).toBeLessThan(4000);
    await expect.poll(() => here.heard.length).toBe(2);
    const { revision } = await get<{ revision: string }>(`/studies/${study}`);
    for (const { heard } of [here, far]) {
      expect(heard[1]).toEqual({ event: 'change', data: { revision, parts: ['materials'], tab } });
    }
    expect(Number(revision)).toBe(Number(first?.data.revision) + 1);
    // A page that gives no id of its own, or something else for it, is told of all.
    await renamed(there, 'b', { 'x-tab': "'; drop table studies" });
    await expect.poll(() => here.heard.length).toBe(3);
    expect(here.heard[2]?.data.tab).toBeNull();
    here.close();
    far.close();
  });

  it('is not heard where it did not come about, nor by who listens to another study', async () => {
    const elsewhere = await createFleet(url(), 1);
    const [own, another] = [
      await listenTo(liveAt(url())),
      await listenTo(liveAt(url(), elsewhere)),
    ];
    await expect.poll(() => own.heard.length + another.heard.length).toBe(2);
    const refused = await call('POST', `/studies/${study}/rows/materials`, { material_id: 'x y' });
    expect(refused.status).toBe(400);
    await renamed({ call }, 'c');
    await expect.poll(() => own.heard.length).toBe(2);
    expect(another.heard).toHaveLength(1);
    own.close();
    another.close();
  });

  it('is caught up with after the connection to the database broke', async () => {
    const { heard, close } = await listenTo(liveAt(other.url));
    await expect.poll(() => heard.length).toBe(1);
    // Until it listens again, what is committed is not told: it says so then.
    await db().sequelize.query(
      `select pg_terminate_backend(pid) from pg_stat_activity
       where datname = current_database() and query ilike 'listen vergleich_studies%'`,
    );
    await renamed({ call }, 'd');
    const { revision } = await get<{ revision: string }>(`/studies/${study}`);
    await expect.poll(() => heard.at(-1)?.data.revision, { timeout: 10_000 }).toBe(revision);
    await renamed({ call }, 'e');
    await expect.poll(() => heard.at(-1)?.event, { timeout: 10_000 }).toBe('change');
    close();
  });

  it('can be asked for where no events come through', async () => {
    const answer = await fetch(liveAt(url()), { headers: { accept: 'application/json' } });
    const { revision } = await get<{ revision: string }>(`/studies/${study}`);
    const stands = (await answer.json()) as { revision: string; touched: Record<string, number> };
    expect(stands.revision).toBe(revision);
    // Of what it is made of, only what was done last is of its last revision.
    const last = Object.entries(stands.touched).filter(([, at]) => at === Number(revision));
    expect(last).toHaveLength(1);
    expect(Object.values(stands.touched).every((at) => at <= Number(revision))).toBe(true);
  });
});

describe('a stream', () => {
  it('is of a study that there is, and ends when it is put away', async () => {
    for (const id of [uuid(), 'nonsense']) {
      expect((await fetch(liveAt(url(), id))).status).toBe(404);
    }
    const short = await createFleet(url(), 1);
    const { heard, ended } = await listenTo(liveAt(url(), short));
    await expect.poll(() => heard.length).toBe(1);
    const { status } = await call('DELETE', `/studies/${short}`, { title: 'A fleet' });
    expect(status).toBe(204);
    await ended;
  });

  it('is ended before the process that it comes from, which ends well', async () => {
    const third = await startServer(databaseUrl());
    const { ended, heard } = await listenTo(liveAt(third.url));
    await expect.poll(() => heard.length).toBe(1);
    const code = once(third.child, 'exit');
    third.child.kill('SIGTERM');
    expect(await ended).toBe('whole');
    expect((await code)[0]).toBe(0);
  });

  it('is one of forty at most that somebody has open; a closed one makes room', async () => {
    // Of sixty that come at once so many are let in, and no more.
    const all = await Promise.all(Array.from({ length: 60 }, () => listenTo(liveAt(url()))));
    const statuses = all.map(({ status }) => status);
    expect(statuses.filter((status) => status === 200)).toHaveLength(40);
    expect(statuses.filter((status) => status === 429)).toHaveLength(20);
    const refused = await fetch(liveAt(url()));
    expect(refused.status).toBe(429);
    expect(((await refused.json()) as { detail: string }).detail).toMatch(/close some/);
    for (const { close } of all) close();
    const again = async () => {
      const one = await listenTo(liveAt(url()));
      one.close();
      return one.status;
    };
    await expect.poll(again).toBe(200);
  });
});

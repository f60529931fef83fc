import { execFile } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { once } from 'node:events';
import http from 'node:http';
import https from 'node:https';
import { connect, createServer, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import mqtt from 'mqtt';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Role } from '../../src/core/model/access';
import { HAND_RULES } from '../support/rights';
import { DEMO_PAIR } from '../support/demo-files';
import { freshDatabase } from '../support/database';
import { kill, startServer, type Server } from '../support/server';

const PASSWORD = 'calipers on a cold bench';
const NOBODY = '0193b3c0-0000-7000-8000-000000000000';
let fresh: Awaited<ReturnType<typeof freshDatabase>>;
let server: Server;
let study = '';
let owner = '';
const keys: Partial<Record<Role, string>> = {};

interface Asking {
  cookie?: string;
  key?: string | undefined;
  body?: unknown;
  headers?: Record<string, string>;
}

const ask = (method: string, path: string, { cookie, key, body, headers }: Asking = {}) =>
  fetch(server.url + path, {
    method,
    redirect: 'manual',
    headers: {
      connection: 'close',
      ...(body !== undefined && { 'content-type': 'application/json' }),
      ...(cookie && { cookie }),
      ...(key && { authorization: `Bearer ${key}` }),
      ...headers,
    },
    ...(body !== undefined && { body: JSON.stringify(body) }),
  });
const api = (method: string, path: string, asking?: Asking) =>
  ask(method, `/api/v1${path}`, asking);
const cookieOf = (response: Response): string =>
  (response.headers.get('set-cookie') ?? '').split(';')[0] ?? '';
const contentOf = async <Content>(response: Response) => (await response.json()) as Content;
const tokenOf = (path: string): string => path.replace('/enter/', '');
const signIn = (name: string, password = PASSWORD) =>
  api('POST', '/sign-in', { body: { name, password } });
const query = (sql: string) =>
  fresh.db.sequelize.query(sql).then(([rows]) => rows as Record<string, unknown>[]);

/** Somebody who has set a password by the link that the owner was given. */
async function letIn(name: string, role: Role): Promise<{ cookie: string; personId: string }> {
  const made = await contentOf<{ person: { person_id: string }; link: { path: string } }>(
    await api('POST', '/people', { cookie: owner, body: { name, role } }),
  );
  const token = tokenOf(made.link.path);
  const entered = await api('POST', '/enter', { body: { token, password: `${PASSWORD} ${name}` } });
  expect(entered.status).toBe(200);
  return { cookie: cookieOf(entered), personId: made.person.person_id };
}

beforeAll(async () => {
  fresh = await freshDatabase(DEMO_PAIR);
  server = await startServer(fresh.url, {
    studies: DEMO_PAIR,
    env: { OPEN_DOORS: '1', PLAIN_HTTP: '1', HOST: '127.0.0.1' },
  });
});
afterAll(async () => {
  await kill(server.child);
  await fresh.drop();
});

/** Asks a server as any client may, whatever its name and certificate. */
const send = (
  target: Server,
  path: string,
  more: {
    host?: string;
    from?: string;
    body?: object;
    at?: string;
    cookie?: string;
    method?: string;
    headers?: Record<string, string>;
  } = {},
) =>
  new Promise<{ status: number; text: string; cookie: string }>((resolve, reject) => {
    const url = new URL(target.url);
    const content = more.body === undefined ? undefined : JSON.stringify(more.body);
    const request = (url.protocol === 'https:' ? https : http).request(
      {
        host: more.at ?? '127.0.0.1',
        port: url.port,
        path,
        rejectUnauthorized: false,
        method: more.method ?? (content === undefined ? 'GET' : 'POST'),
        headers: {
          host: more.host ?? url.host,
          connection: 'close',
          ...(content !== undefined && { 'content-type': 'application/json' }),
          ...(more.from && { 'x-forwarded-for': more.from }),
          ...(more.cookie && { cookie: more.cookie }),
          ...more.headers,
        },
      },
      (response) => {
        let text = '';
        response.on('data', (part: Buffer) => (text += part.toString()));
        response.on('end', () =>
          resolve({
            status: response.statusCode ?? 0,
            text,
            cookie: response.headers['set-cookie']?.[0] ?? '',
          }),
        );
      },
    );
    request.on('error', reject);
    request.end(content);
  });

/** A port that nobody listens on. */
async function freePort(): Promise<number> {
  const server = createServer().listen(0);
  await once(server, 'listening');
  const { port } = server.address() as AddressInfo;
  server.close();
  await once(server, 'close');
  return port;
}

/** On the bench link from elsewhere a machine speaks by its key, of itself, and hears nothing. */
async function speaksByKey(open: Server, port: number, cookie: string): Promise<void> {
  const keyFor = (machine_id: string | undefined, role = 'machine') =>
    send(open, '/api/v1/keys', {
      cookie,
      body: { name: `rack ${machine_id}`, role, days: 7, machine_id },
    });
  expect((await keyFor('m/1')).status).toBe(400);
  expect((await keyFor(undefined)).status).toBe(400);
  expect((await keyFor('m-1', 'reader')).status).toBe(400);
  const made = await keyFor('m-1');
  expect(made.status).toBe(201);
  const { key_id, secret } = JSON.parse(made.text) as { key_id: string; secret: string };
  const come = (username: string, password: string, clientId = `${username}/rack`) =>
    mqtt.connectAsync(`mqtts://127.0.0.2:${port}`, {
      clientId,
      username,
      password,
      rejectUnauthorized: false,
      reconnectPeriod: 0,
    });
  for (const [user, password] of [
    ['m-1', 'A'.repeat(43)],
    ['m-2', secret],
    ['m-1', ''],
  ] as const) {
    await expect(come(user, password)).rejects.toThrow(/authori[sz]ed/i);
  }
  // An id that is another machine's would end that one's conversation: it is let in under its own only.
  for (const clientId of ['m-2', 'm-2/rack', 'm-1x', 'rack']) {
    await expect(come('m-1', secret, clientId)).rejects.toThrow(/authori[sz]ed/i);
  }
  const machine = await come('m-1', secret);
  await machine.publishAsync('vergleich/1/machine/m-1/link', 'up', { qos: 1 });
  await expect(machine.subscribeAsync('vergleich/1/#')).rejects.toThrow(/subscribe/i);
  // A topic of another machine ends the conversation.
  const ended = new Promise((resolve) => machine.once('close', () => resolve(null)));
  machine.publish('vergleich/1/machine/m-2/link', 'up', { qos: 1 });
  await ended;
  await machine.endAsync(true);
  // It opens no page, and is worth nothing once it is taken back.
  const asked = await send(open, '/api/v1/studies', {
    headers: { authorization: `Bearer ${secret}` },
  });
  expect(asked.status).toBe(403);
  const stays = await come('m-1', secret);
  const isShut = new Promise((resolve) => stays.once('close', () => resolve(null)));
  await stays.publishAsync('vergleich/1/machine/m-1/link', 'up', { qos: 1 });
  expect((await send(open, `/api/v1/keys/${key_id}`, { cookie, method: 'DELETE' })).status).toBe(
    204,
  );
  await expect(come('m-1', secret)).rejects.toThrow(/authori[sz]ed/i);
  // Who still stands there with it is shown out at the next word, which counts no more.
  stays.publish('vergleich/1/machine/m-1/link', 'down', { qos: 1 });
  await isShut;
  await stays.endAsync(true);
}

describe('doors that nobody owns yet', () => {
  it('let nobody in but by the link that makes the owner', async () => {
    expect((await api('GET', '/studies')).status).toBe(401);
    const page = await ask('GET', '/machines?x=1');
    expect([page.status, page.headers.get('location')]).toEqual([
      303,
      '/sign-in?to=%2Fmachines%3Fx%3D1',
    ]);
    expect((await signIn('Kim')).status).toBe(401);
  });

  it('want a password worth the name, and the link stays good until then', async () => {
    const token = tokenOf(server.enter ?? '');
    const weak = await api('POST', '/enter', {
      body: { token, name: 'Kim', password: 'password1234' },
    });
    expect(weak.status).toBe(422);
    expect(await weak.text()).toContain('one of the first that attackers try');
    const entered = await api('POST', '/enter', {
      body: { token, name: 'Kim', initials: 'KM', password: PASSWORD },
    });
    expect(entered.status).toBe(200);
    const set = entered.headers.get('set-cookie') ?? '';
    expect(set).toMatch(/^vergleich=[\w-]{43}; Path=\/; HttpOnly; SameSite=Lax; Max-Age=2592000$/);
    owner = cookieOf(entered);
    const again = await api('POST', '/enter', { body: { token, name: 'Mo', password: PASSWORD } });
    expect(again.status).toBe(410);
    const studies = await contentOf<{ study_id: string; name: string }[]>(
      await api('GET', '/studies', { cookie: owner }),
    );
    study = studies.find(({ name }) => name === 'gannet-speeds')?.study_id ?? '';
    expect(study).not.toBe('');
  });

  it('keep only what no secret can be read from', async () => {
    const [session] = await query('select encode(token_hash, $$base64$$) as kept from sessions');
    expect(owner).not.toContain(String(session?.kept).slice(0, 20));
    const [person] = await query('select password_hash from people');
    expect(person?.password_hash).toMatch(/^\$argon2id\$v=19\$m=19456,t=2,p=1\$/);
  });
});

describe('keys for programs', () => {
  it('are made for a role and an end, shown once, and never an owner’s', async () => {
    for (const role of ['evaluator', 'operator', 'reader'] as const) {
      const made = await api('POST', '/keys', {
        cookie: owner,
        body: { name: role, role, days: 7 },
      });
      const said = await contentOf<{ secret: string }>(made);
      expect([made.status, said]).toEqual([
        201,
        expect.objectContaining({ secret: expect.any(String) as string }),
      ]);
      keys[role] = said.secret;
    }
    const refused = await api('POST', '/keys', {
      cookie: owner,
      body: { name: 'x', role: 'owner', days: 7 },
    });
    expect(refused.status).toBe(400);
    const listed = await (await api('GET', '/keys', { cookie: owner })).text();
    expect(listed).not.toContain(keys.reader);
  });

  it('are two where they are asked for twice: an answer that holds a secret is not kept', async () => {
    const headers = { 'idempotency-key': 'the-same-for-both' };
    const body = { name: 'twice', role: 'reader', days: 1 };
    const made = [1, 2].map(() => api('POST', '/keys', { cookie: owner, body, headers }));
    const said = await Promise.all(
      made.map(async (one) => contentOf<{ secret: string }>(await one)),
    );
    expect(new Set(said.map(({ secret }) => secret)).size).toBe(2);
    expect(await query(`select 1 from kept_answers where key = 'the-same-for-both'`)).toEqual([]);
  });

  it('past their end, or taken back, let nobody in', async () => {
    const make = async (name: string) =>
      contentOf<{ key_id: string; secret: string }>(
        await api('POST', '/keys', { cookie: owner, body: { name, role: 'reader', days: 1 } }),
      );
    const [late, back] = [await make('late'), await make('back')];
    await query(`update access_keys set ends_at = now() - interval '1 minute' where name = 'late'`);
    expect((await api('DELETE', `/keys/${back.key_id}`, { cookie: owner })).status).toBe(204);
    for (const { secret } of [late, back]) {
      expect((await api('GET', '/studies', { key: secret })).status).toBe(401);
    }
    expect((await api('GET', '/studies', { key: 'A'.repeat(43) })).status).toBe(401);
  });
});

/** Every endpoint that there is, with the methods that its file has. */
const ENDPOINTS = readdirSync('src/pages/api', { recursive: true, encoding: 'utf8' })
  .filter((file) => /(?:^|\/)[^_/][^/]*\.ts$/.test(file))
  .map((file) => {
    const text = readFileSync(`src/pages/api/${file}`, 'utf8');
    const named = [...text.matchAll(/export const (GET|POST|PUT|PATCH|DELETE)\b/g)].map(
      (one) => one[1] ?? '',
    );
    const destructured = [...text.matchAll(/export const \{([^}]+)\}/g)].flatMap((one) =>
      (one[1] ?? '').split(',').map((name) => name.trim()),
    );
    const pattern = `/api/${file.replace(/\.ts$/, '').replace(/\/index$/, '')}`;
    return { pattern, methods: [...named, ...destructured].sort() };
  })
  .sort((a, b) => a.pattern.localeCompare(b.pattern));

const PARAMS: Record<string, string> = {
  table: 'inspections',
  section: 'accuracy',
  sha256: 'a'.repeat(64),
};
const pathOf = (pattern: string, more: Record<string, string>): string =>
  pattern.replaceAll(
    /\[(?:\.\.\.)?(\w+)\]/g,
    (_, name: string) => more[name] ?? PARAMS[name] ?? NOBODY,
  );

describe('the table of rights', () => {
  it('names every endpoint with every method, and nothing else', () => {
    const files = ENDPOINTS.filter(({ pattern }) => pattern !== '/api/[...path]');
    const written = new Map<string, string[]>();
    for (const { pattern, method } of HAND_RULES) {
      written.set(pattern, [...(written.get(pattern) ?? []), method].sort());
    }
    const rules = [...written]
      .map(([pattern, methods]) => ({ pattern, methods }))
      .sort((a, b) => a.pattern.localeCompare(b.pattern));
    expect(rules).toEqual(files);
  });

  it.each(ENDPOINTS.filter(({ pattern }) => pattern !== '/api/[...path]'))(
    'is held at $pattern',
    async ({ pattern, methods }) => {
      const tables = pattern.includes('[table]') ? ['inspections', 'machines'] : [''];
      for (const method of methods) {
        for (const table of tables) {
          const params = table === '' ? {} : { table };
          const path = pathOf(pattern, params);
          const rule = HAND_RULES.find((one) => one.pattern === pattern && one.method === method);
          if (!rule) throw new Error(`${method} ${pattern} is not in the table`);
          const allowed = rule.roles[table === 'machines' ? 1 : 0];
          const body = method === 'GET' ? {} : { body: {} };
          const unknown = await ask(method, path, body);
          await unknown.body?.cancel();
          if (rule.isForAll) {
            expect(unknown.status, `${method} ${path}`).not.toBe(403);
            continue;
          }
          expect(unknown.status, `${method} ${path} by nobody`).toBe(401);
          for (const role of ['evaluator', 'operator', 'reader'] as const) {
            const answer = await ask(method, path, { key: keys[role], ...body });
            await answer.body?.cancel();
            const told = `${method} ${path} by a ${role}: ${answer.status}`;
            if (allowed.has(role)) expect([401, 403], told).not.toContain(answer.status);
            else expect(answer.status, told).toBe(403);
          }
          if (pattern.startsWith('/api/v1/me')) continue;
          const answer = await ask(method, path, { cookie: owner, ...body });
          await answer.body?.cancel();
          expect([401, 403], `${method} ${path} by the owner`).not.toContain(answer.status);
        }
      }
    },
  );

  it('lets anybody ask for a published report, and tells nobody whether another one is there', async () => {
    for (const path of ['/r/clips-2026', '/r/clips-2026/1/', '/r/clips-2026/1/data.zip']) {
      const answer = await ask('GET', path);
      expect([path, answer.status]).toEqual([path, 404]);
      await answer.body?.cancel();
    }
  });

  it('gives the data of a report to nobody who may not export the study', async () => {
    const path = `/studies/${study}/report/1/data.zip`;
    for (const [role, status] of [
      ['operator', 403],
      ['reader', 404],
      ['evaluator', 404],
    ] as const) {
      const answer = await ask('GET', path, { key: keys[role] });
      expect([role, answer.status]).toEqual([role, status]);
      await answer.body?.cancel();
    }
  });

  it('closes pages too', async () => {
    expect((await ask('GET', '/people', { key: keys.evaluator })).status).toBe(403);
    expect((await ask('GET', '/people', { cookie: owner })).status).toBe(200);
    expect((await ask('GET', `/studies/${study}/runs`, { key: keys.reader })).status).toBe(200);
  });
});

describe('what is entered', () => {
  it('carries who entered it; operators correct what is theirs, and nobody else’s', async () => {
    const [place] = await query(
      `select s.specimen_id, d.dimension_id from specimens s
       join prints p using (study_id, print_id)
       join dimensions d on d.study_id = s.study_id and d.artefact_id = p.artefact_id
       where s.study_id = '${study}' limit 1`,
    );
    const [instrument] = await query(
      `select instrument_id from instruments where study_id = '${study}' limit 1`,
    );
    const at = '2026-10-01T10:00:00Z';
    const send = async (asking: Asking, id: string) => {
      const body = {
        reading_id: id,
        ...place,
        trial: 90,
        value_mm: 20.1,
        ...instrument,
        operator: 'XX',
        at,
      };
      const answer = await api('POST', `/studies/${study}/readings`, { ...asking, body });
      expect(answer.status).toBe(201);
    };
    const pia = await letIn('Pia', 'operator');
    const [own, others] = [
      '0193b3c0-0000-7000-8000-000000000001',
      '0193b3c0-0000-7000-8000-000000000002',
    ];
    await send({ cookie: pia.cookie }, own);
    await send({ key: keys.evaluator }, others);
    const rows = await query(
      `select reading_id, operator, entered_by from readings where reading_id in ('${own}', ` +
        `'${others}') order by reading_id`,
    );
    expect(rows[0]).toMatchObject({ operator: 'XX', entered_by: `person:${pia.personId}` });
    expect(rows[1]?.entered_by).toMatch(/^key:/);
    const takeBack = (id: string) =>
      api('DELETE', `/studies/${study}/readings/${id}`, { cookie: pia.cookie, body: { at } });
    expect((await takeBack(others)).status).toBe(403);
    expect((await takeBack(own)).status).toBe(200);
  });

  it('says who changed it', async () => {
    const { row_version } = await contentOf<{ row_version: number }>(
      await api('GET', `/studies/${study}`, { cookie: owner }),
    );
    const changed = await api('PATCH', `/studies/${study}`, {
      cookie: owner,
      body: { version: row_version, change: { description: 'changed' } },
    });
    expect(changed.status).toBe(200);
    const [row] = await query(
      `select actor from changes where table_name = 'studies' order by change_id desc limit 1`,
    );
    const [kim] = await query(`select person_id from people where name = 'Kim'`);
    expect(row?.actor).toBe(`person:${String(kim?.person_id)}`);
  });
});

describe('operators', () => {
  it('end a print that somebody else began, and change no print or grade of others that is done', async () => {
    const [print] = await query(
      `select print_id from prints where study_id = '${study}' and ended_at is not null limit 1`,
    );
    const path = `/studies/${study}/rows/prints/${String(print?.print_id)}`;
    const versionOf = async () =>
      (await contentOf<{ row_version: number }>(await api('GET', path, { cookie: owner })))
        .row_version;
    const change = async (asking: Asking, sent: object) =>
      (await api('PATCH', path, { ...asking, body: { version: await versionOf(), change: sent } }))
        .status;
    const note = { firmware: '9.9.9' };
    expect(await change({ key: keys.operator }, note)).toBe(403);
    expect(await change({ key: keys.evaluator }, note)).toBe(200);
    await query(`update prints set ended_at = null where print_id = '${String(print?.print_id)}'`);
    expect(await change({ key: keys.operator }, note)).toBe(200);
  });

  it('correct what they entered, and not what an evaluator did', async () => {
    const [machine] = await query(
      `select machine_id from machines where study_id = '${study}' limit 1`,
    );
    const rows = `/studies/${study}/rows/noise`;
    const enter = async (asking: Asking, distance_m: number) => {
      const body = { ...machine, state: 'idle', distance_m, db_a: 40 };
      expect((await api('POST', rows, { ...asking, body })).status).toBe(201);
      return `${rows}/${String(machine?.machine_id)}/idle/${distance_m}`;
    };
    const change = async (path: string) =>
      (await api('PATCH', path, { key: keys.operator, body: { version: 1, change: { db_a: 41 } } }))
        .status;
    expect(await change(await enter({ key: keys.operator }, 2))).toBe(200);
    expect(await change(await enter({ key: keys.evaluator }, 3))).toBe(403);
  });

  it('file photos that are theirs or nobody’s, and none of others', async () => {
    const [specimen] = await query(
      `select specimen_id from specimens where study_id = '${study}' limit 1`,
    );
    const path = 'photos/somebody.jpg';
    const sha256 = 'a'.repeat(64);
    await query(`insert into stored_files (sha256, bytes) values ('${sha256}', 1)`);
    await query(
      `insert into study_files (study_id, "path", sha256) values ('${study}', '${path}', '${sha256}')`,
    );
    await query(
      `insert into pictures (study_id, "path", name, state) values ('${study}', '${path}', 'x', 'failed')`,
    );
    const filedBy = (who: string) =>
      query(`insert into photos (study_id, specimen_id, "path", view, entered_by)
        values ('${study}', '${String(specimen?.specimen_id)}', '${path}', 'front', ${who})
        on conflict (study_id, specimen_id, "path") do update set entered_by = excluded.entered_by`);
    const turn = async (asking: Asking) =>
      (
        await api('PATCH', `/studies/${study}/photos`, {
          ...asking,
          body: { paths: [path], view: 'back' },
        })
      ).status;
    await filedBy(`'person:somebody-else'`);
    expect(await turn({ key: keys.operator })).toBe(403);
    expect(await turn({ key: keys.evaluator })).toBe(200);
    await filedBy('null');
    expect(await turn({ key: keys.operator })).toBe(200);
    const [key] = await query(
      `select 'key:' || key_id as id from access_keys where role = 'operator' limit 1`,
    );
    await filedBy(`'${String(key?.id)}'`);
    expect(await turn({ key: keys.operator })).toBe(200);
    await query(`delete from photos where "path" = '${path}'`);
    await query(`delete from study_files where "path" = '${path}'`);
  });
});

describe('work that outlives a request', () => {
  it('is taken from each person so often within an hour, and from the others all the same', async () => {
    const bring = async (key = '') => {
      const response = await fetch(`${server.url}/api/v1/imports`, {
        method: 'PUT',
        headers: { authorization: `Bearer ${key}`, connection: 'close' },
        body: 'no package',
      });
      return { status: response.status, text: await response.text() };
    };
    const statuses = new Set<number>();
    let last = await bring(keys.evaluator);
    for (let more = 0; more < 65 && last.status !== 429; more += 1) {
      statuses.add(last.status);
      last = await bring(keys.evaluator);
    }
    expect(statuses).toEqual(new Set([422]));
    expect([last.status, last.text]).toEqual([
      429,
      expect.stringContaining('more than 60 imports within an hour'),
    ]);
    expect((await ask('PUT', '/api/v1/imports', { cookie: owner, body: {} })).status).not.toBe(429);
  });
});

describe('pages of results that are kept', () => {
  it('are shown to whom they were made for, and to nobody who has not come in', async () => {
    const path = `/studies/${study}/results/accuracy`;
    const read = async (asking: Asking) => {
      const answer = await ask('GET', path, asking);
      return [answer.status, await answer.text()] as const;
    };
    for (let at = 0; at < 3; at += 1) {
      const [status, text] = await read({ cookie: owner });
      expect([status, text.includes('href="/people"')]).toEqual([200, true]);
    }
    const [status, text] = await read({ key: keys.reader });
    expect([status, text.includes('href="/people"'), text.includes('Kim')]).toEqual([
      200,
      false,
      false,
    ]);
    expect((await read({}))[0]).toBe(303);
    expect((await read({ cookie: `vergleich=${'C'.repeat(43)}` }))[0]).toBe(303);
  });
});

describe('the history of a print', () => {
  it('says who was signed in beside whom they called themselves', async () => {
    const [print] = await query(
      `select print_id from prints where study_id = '${study}' and ended_at is not null order by print_id desc limit 1`,
    );
    const path = `/studies/${study}/rows/prints/${String(print?.print_id)}`;
    const { row_version } = await contentOf<{ row_version: number }>(
      await api('GET', path, { cookie: owner }),
    );
    const body = { version: row_version, change: { firmware: '1.2.3' } };
    expect(
      (await api('PATCH', path, { cookie: owner, body, headers: { 'x-operator': 'TS' } })).status,
    ).toBe(200);
    const [change] = await contentOf<object[]>(
      await api(
        'GET',
        `/studies/${study}/history?table=prints&print_id=${String(print?.print_id)}`,
        { cookie: owner },
      ),
    );
    expect(change).toMatchObject({ who: 'TS', person: 'Kim', after: { firmware: '1.2.3' } });
    // It travels with the study's package to where nobody of that name is known.
    const packed = await api('GET', `/studies/${study}/package`, { cookie: owner });
    const brought = await fetch(`${server.url}/api/v1/imports`, {
      method: 'PUT',
      headers: { cookie: owner, 'content-type': 'application/zip' },
      body: await packed.arrayBuffer(),
    });
    const { study_id } = await contentOf<{ study_id: string }>(brought);
    const [there] = await query(
      `select actor, person from changes where study_id = '${study_id}' and after->>'firmware' = '1.2.3'`,
    );
    expect(there).toEqual({ actor: null, person: 'Kim' });
    const [told] = await contentOf<object[]>(
      await api(
        'GET',
        `/studies/${study_id}/history?table=prints&print_id=${String(print?.print_id)}`,
        { cookie: owner },
      ),
    );
    expect(told).toMatchObject({ who: 'TS', person: 'Kim' });
  });
});

describe('sessions', () => {
  it('are renewed at sign-in, listed with their device, ended by hand', async () => {
    const answer = await signIn('kim');
    expect(answer.status).toBe(204);
    const second = cookieOf(answer);
    expect(second).not.toBe(owner);
    const devices = await contentOf<{ session_id: string; isThis: boolean }[]>(
      await api('GET', '/me/devices', { cookie: owner }),
    );
    expect(devices.filter(({ isThis }) => isThis)).toHaveLength(1);
    const other = devices.find(({ isThis }) => !isThis);
    expect(
      (await api('DELETE', `/me/devices/${other?.session_id}`, { cookie: owner })).status,
    ).toBe(204);
    expect((await api('GET', '/studies', { cookie: second })).status).toBe(401);
  });

  it('not used for thirty days are over; so are forged ones and those of another host', async () => {
    const cookie = cookieOf(await signIn('Kim'));
    expect((await api('GET', '/me', { cookie })).status).toBe(200);
    await query(
      `update sessions set used_at = now() - interval '31 days' where made_at = (select max(made_at) from sessions)`,
    );
    expect((await api('GET', '/me', { cookie })).status).toBe(401);
    expect((await api('GET', '/me', { cookie: `vergleich=${'B'.repeat(43)}` })).status).toBe(401);
    expect((await api('GET', '/me', { cookie: `vergleich=' or 1=1` })).status).toBe(401);
    const elsewhere = await api('GET', '/me', {
      cookie: owner,
      headers: { 'x-forwarded-host': 'elsewhere.example' },
    });
    expect(elsewhere.status).toBe(200);
    const foreign = await api('DELETE', '/me', {
      cookie: owner,
      headers: { origin: 'https://elsewhere.example' },
    });
    expect(foreign.status).toBe(403);
  });

  it('of a device come by a link: once, in time, and with no more than was handed on', async () => {
    const pair = async (cookie: string, role: Role) =>
      api('POST', '/me/devices', { cookie, body: { role, leads_to: '//elsewhere.example/x' } });
    expect((await pair(owner, 'owner')).status).toBe(403);
    const { path } = await contentOf<{ path: string }>(await pair(owner, 'operator'));
    const body = { token: tokenOf(path) };
    const both = await Promise.all([
      api('POST', '/enter', { body }),
      api('POST', '/enter', { body }),
    ]);
    expect(both.map(({ status }) => status).sort()).toEqual([200, 410]);
    const entered = both.find(({ status }) => status === 200) as Response;
    // What would lead elsewhere leads home.
    expect(await contentOf<object>(entered.clone())).toEqual({ to: '/' });
    const phone = cookieOf(entered);
    const me = await contentOf<{ name: string; role: string }>(
      await api('GET', '/me', { cookie: phone }),
    );
    expect(me).toMatchObject({ name: 'Kim', role: 'operator' });
    expect((await pair(phone, 'reader')).status).toBe(403);
    // From a tablet that was handed on, the owner's own devices are neither seen nor signed out.
    const seen = await contentOf<{ session_id: string; role: string }[]>(
      await api('GET', '/me/devices', { cookie: phone }),
    );
    expect(seen.map(({ role }) => role)).toEqual(['operator']);
    const [other] = await query(`select session_id from sessions where role = 'owner' limit 1`);
    expect(
      (await api('DELETE', `/me/devices/${String(other?.session_id)}`, { cookie: phone })).status,
    ).toBe(404);
    expect((await api('GET', '/people', { cookie: phone })).status).toBe(403);
    const late = await contentOf<{ path: string }>(await pair(owner, 'reader'));
    await query(
      `update access_links set ends_at = now() - interval '1 second' where used_at is null`,
    );
    expect((await api('POST', '/enter', { body: { token: tokenOf(late.path) } })).status).toBe(410);
  });

  it('end where a role is taken away or a door is closed; an owner is always left', async () => {
    const sam = await letIn('Sam', 'evaluator');
    const people = async () =>
      contentOf<{ person_id: string; name: string; row_version: number }[]>(
        await api('GET', '/people', { cookie: owner }),
      );
    const change = async (name: string, sent: object) => {
      const person = (await people()).find((one) => one.name === name);
      return api('PATCH', `/people/${person?.person_id}`, {
        cookie: owner,
        body: { version: person?.row_version, ...sent },
      });
    };
    expect((await change('Sam', { role: 'reader' })).status).toBe(200);
    expect((await api('GET', '/me', { cookie: sam.cookie })).status).toBe(401);
    const back = await signIn('Sam', `${PASSWORD} Sam`);
    expect(back.status).toBe(204);
    expect((await change('Sam', { isClosed: true })).status).toBe(200);
    expect((await api('GET', '/me', { cookie: cookieOf(back) })).status).toBe(401);
    expect((await signIn('Sam', `${PASSWORD} Sam`)).status).toBe(401);
    const last = await change('Kim', { role: 'evaluator' });
    expect(last.status).toBe(409);
    expect((await api('GET', '/me', { cookie: owner })).status).toBe(200);
  });
});

describe('tries to come in', () => {
  it('are slowed down by account and by address, whatever process counts; the right one helps no more', async () => {
    await letIn('Tove', 'reader');
    const wrong = () => signIn('Tove', 'not her password at all');
    const statuses: number[] = [];
    for (let at = 0; at < 10; at += 1) statuses.push((await wrong()).status);
    expect(statuses.slice(0, 8)).toEqual(Array.from({ length: 8 }, () => 401));
    expect(statuses.at(-1)).toBe(429);
    const right = await signIn('Tove', `${PASSWORD} Tove`);
    expect([right.status, Number(right.headers.get('retry-after')) > 60]).toEqual([429, true]);
    const names = ['a', 'b', 'c', 'd', 'e', 'f'].flatMap((one) =>
      Array.from({ length: 7 }, () => one),
    );
    for (const name of names) statuses.push((await signIn(name, 'no')).status);
    expect(statuses.at(-1)).toBe(429);
    // Who is in already stays in.
    expect((await api('GET', '/studies', { cookie: owner })).status).toBe(200);
  });

  it('and what came of them are in the log, without a secret', async () => {
    const log = await (await api('GET', '/access-log?form=csv', { cookie: owner })).text();
    for (const words of [
      'owner made',
      'signed in',
      'sign-in failed',
      'role changed',
      'key made',
      'door closed',
    ]) {
      expect(log).toContain(words);
    }
    expect(log).not.toContain(PASSWORD);
    expect(log).not.toContain(keys.reader);
    const narrowed = await contentOf<{ what: string }[]>(
      await api('GET', '/access-log?text=role%20changed', { cookie: owner }),
    );
    expect(new Set(narrowed.map(({ what }) => what))).toEqual(new Set(['role changed']));
  });
});

describe('an application behind a proxy, or open on all addresses', () => {
  /** A request whose Host is what is said; fetch would not have it. */
  const own = { name: 'Kim', password: PASSWORD };

  it('asks who is there though nobody owns it, knows its own names only, and believes the proxy', async () => {
    const { url, drop } = await freshDatabase();
    const proxied = await startServer(url, {
      env: { TRUST_PROXY: '1', PUBLIC_URL: 'https://prints.example', LOG_LEVEL: 'info' },
      isHeard: true,
    });
    let log = '';
    proxied.child.stderr?.on('data', (part: Buffer) => (log += part.toString()));
    try {
      expect((await send(proxied, '/api/v1/studies')).status).toBe(401);
      expect((await send(proxied, '/api/v1/studies', { host: 'prints.example' })).status).toBe(401);
      expect((await send(proxied, '/api/v1/studies', { host: 'other.example' })).status).toBe(403);
      const body = { ...own, token: tokenOf(proxied.enter ?? '') };
      const enter = (from: string) =>
        send(proxied, '/api/v1/enter', { host: 'prints.example', from, body });
      // The link that makes the owner is good on the computer itself, and what a visitor says of that is not believed.
      expect((await enter('127.0.0.1, 198.51.100.7')).status).toBe(403);
      // Who has come in already when it gets its owner stays in: it listens where it listened.
      const guest = connect(Number(new URL(proxied.url).port), '127.0.0.1');
      const healthy = async () => {
        const said = once(guest, 'data');
        guest.write('GET /healthz HTTP/1.1\r\nHost: prints.example\r\n\r\n');
        return String((await said)[0]);
      };
      expect(await healthy()).toMatch(/^HTTP\/1\.1 200/);
      let isPutOut = false;
      guest.once('close', () => (isPutOut = true));
      const entered = await enter('127.0.0.1');
      expect(entered.status).toBe(200);
      // It asks every second whether somebody owns it by now.
      await new Promise((resolve) => setTimeout(resolve, 2500));
      expect(isPutOut).toBe(false);
      expect(await healthy()).toMatch(/^HTTP\/1\.1 200/);
      guest.destroy();
      expect(entered.cookie).toMatch(
        /^__Host-vergleich=[\w-]{43}; Path=\/; HttpOnly; SameSite=Lax; .*; Secure$/,
      );
      const inside = { host: 'prints.example', from: '198.51.100.7' };
      const cookie = entered.cookie.split(';')[0] ?? '';
      const keyOf = async (role: string, machine_id?: string) => {
        const body = { name: role, role, days: 1, machine_id };
        return (
          JSON.parse((await send(proxied, '/api/v1/keys', { ...inside, cookie, body })).text) as {
            secret: string;
          }
        ).secret;
      };
      const [reader, machine] = [await keyOf('reader'), await keyOf('machine', 'm-1')];
      const measured = (headers: Record<string, string>) =>
        send(proxied, '/metrics', { ...inside, headers }).then(({ status }) => status);
      // Elsewhere what the process counts is told to keys only, and to none that may see nothing.
      expect(await measured({})).toBe(401);
      expect(await measured({ cookie })).toBe(401);
      expect(await measured({ authorization: `Bearer ${machine}` })).toBe(403);
      expect(await measured({ authorization: `Bearer ${reader}` })).toBe(200);
      await send(proxied, `${proxied.enter}`, inside);
      await send(proxied, `/judge/${'J'.repeat(43)}`, inside);
      await send(proxied, `/api/v1/judging/${'J'.repeat(43)}`, inside);
      await expect.poll(() => log).toContain('"path":"/api/v1/judging/…"');
      expect(log).toContain('"path":"/judge/…"');
      expect(log).not.toContain('J'.repeat(43));
      // A line of JSON for each request, by whom, without what lets anybody in.
      await expect.poll(() => log).toContain('"path":"/enter/…"');
      const lines = log
        .trim()
        .split('\n')
        .map((line) => JSON.parse(line) as Record<string, unknown>);
      const asked = lines.filter(({ path }) => path === '/api/v1/keys');
      expect(asked).toHaveLength(2);
      expect(asked[0]).toMatchObject({ method: 'POST', status: 201, msg: 'answered' });
      expect(asked[0]?.actor).toMatch(/^person:/);
      expect(asked[0]?.request).toMatch(/^[0-9a-f-]{36}$/);
      for (const secret of [PASSWORD, reader, machine, body.token, cookie.split('=')[1] ?? '']) {
        expect(log).not.toContain(secret);
      }
    } finally {
      await kill(proxied.child);
      await drop();
    }
  });

  it('is there for others once somebody owns it, by TLS with a certificate of its own', async () => {
    const { url, drop } = await freshDatabase();
    const folder = mkdtempSync(join(tmpdir(), 'vergleich-open-'));
    const linkPort = await freePort();
    const open = await startServer(url, {
      env: { OPEN_DOORS: '1', KEEP_DIR: folder, HOST: '0.0.0.0', MQTTS_PORT: String(linkPort) },
    });
    // On Linux 127.0.0.2 is another address of this computer: only who listens on all of them hears it.
    const elsewhere = () =>
      send(open, '/healthz', { at: '127.0.0.2' }).then(
        ({ status }) => status,
        () => 0,
      );
    try {
      expect(open.url).toMatch(/^https:/);
      expect(await elsewhere()).toBe(0);
      const entered = await send(open, '/api/v1/enter', {
        body: { ...own, token: tokenOf(open.enter ?? '') },
      });
      expect([entered.status, entered.cookie.startsWith('__Host-vergleich=')]).toEqual([200, true]);
      await expect.poll(elsewhere, { timeout: 20_000 }).toBe(200);
      expect((await send(open, '/api/v1/studies', { at: '127.0.0.2' })).status).toBe(401);
      await speaksByKey(open, linkPort, entered.cookie);
    } finally {
      await kill(open.child);
      await drop();
      rmSync(folder, { recursive: true });
    }
  });

  it('has a link for an owner who lost the password, on the computer itself', async () => {
    const out = await new Promise<string>((resolve, reject) => {
      execFile(
        process.execPath,
        ['bin/vergleich.mjs', 'owner-link'],
        { env: { ...process.env, DATABASE_URL: fresh.url } },
        (error, text) => (error ? reject(new Error(error.message)) : resolve(text)),
      );
    });
    const token = tokenOf(/\/enter\/[\w-]{43}/.exec(out)?.[0] ?? '');
    const enter = (name: string) =>
      api('POST', '/enter', { body: { token, name, password: `${PASSWORD} again` } });
    // The address has tried too often in the tests before: that is forgotten here, as it is after a while.
    await query('delete from sign_in_tries');
    expect((await enter('Pia')).status).toBe(409);
    expect((await enter('kim')).status).toBe(200);
    expect((await api('GET', '/me', { cookie: owner })).status).toBe(401);
    expect((await signIn('Kim', `${PASSWORD} again`)).status).toBe(204);
  });
});

import { createHash, randomBytes } from 'node:crypto';
import { request } from 'node:http';
import { join } from 'node:path';
import { strToU8, unzipSync, zipSync } from 'fflate';
import { v7 as uuid } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openDatabase, type Database } from '../../src/data';
import { apiOf, type Answer } from '../support/api';
import { freshDatabase } from '../support/database';
import { changedDemo, DEMO_PAIR, demoFiles, DEMO_SWEEP } from '../support/demo-files';
import { createFleet } from '../support/fleet';
import { kill, startServer, type Server } from '../support/server';
import { zipped } from '../support/zip';

let server: Server;
let db: Database;
let databaseUrl: string;
let drop: () => Promise<void>;
/** The demo study. */
let demo: string;

beforeAll(async () => {
  ({ url: databaseUrl, db, drop } = await freshDatabase(DEMO_PAIR));
  server = await startServer(databaseUrl, { studies: DEMO_PAIR });
  const studies = await get<{ study_id: string; name: string }[]>('/studies');
  demo = studies.find(({ name }) => name === 'clip-bench')?.study_id ?? '';
});
afterAll(async () => {
  await kill(server.child);
  await drop();
});

const { call, get } = apiOf(() => server.url);

const statuses = (answers: readonly Answer[]) => answers.map(({ status }) => status);
const sha256 = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex');
const revisionOf = async (study: string): Promise<number> => {
  const [[row]] = (await db.sequelize.query('select revision from studies where study_id = $1', {
    bind: [study],
  })) as unknown as [[{ revision: string }]];
  return Number(row.revision);
};

async function sendSliced(study: string, name: string, bytes: Uint8Array): Promise<string> {
  const hash = sha256(bytes);
  const base = `/studies/${study}/sliced-files`;
  await call('POST', base, { name, bytes: bytes.length, sha256: hash });
  const sent = await call('PUT', `${base}/uploads/${hash}?offset=0`, bytes as BodyInit);
  expect(sent.status).toBe(200);
  return String(sent.content.path);
}

async function untilRead(study: string): Promise<void> {
  const unread = async () =>
    (await get<{ state: string }[]>(`/studies/${study}/sliced-files`)).filter(
      ({ state }) => state === 'waiting' || state === 'reading',
    ).length;
  await expect.poll(unread, { timeout: 60_000 }).toBe(0);
}

describe('whoever watches over it', () => {
  it('hears whether it is alive and ready, and nothing else', async () => {
    const ask = async (path: string) => {
      const answer = await fetch(server.url + path);
      return [answer.status, (await answer.text()).trim(), answer.headers.get('cache-control')];
    };
    expect(await ask('/healthz')).toEqual([200, 'alive', 'no-store']);
    expect(await ask('/readyz')).toEqual([200, 'ready', 'no-store']);
  });
});

describe('a program that watches over it', () => {
  const measures = async () => {
    const answer = await fetch(`${server.url}/metrics`);
    expect(answer.headers.get('content-type')).toMatch(/^text\/plain; version=0\.0\.4/);
    const lines = (await answer.text()).split('\n').filter((line) => line.startsWith('vergleich_'));
    return new Map(lines.map((line) => line.split(/ (?=[^ ]+$)/) as [string, string]));
  };

  it('is told of requests, jobs, results, connections and the link, on this computer', async () => {
    const name = 'vergleich_request_seconds_count{kind="api",method="GET",status="404"}';
    const before = Number((await measures()).get(name) ?? 0);
    const id = (await fetch(`${server.url}/api/v1/studies/${uuid()}`)).headers.get('x-request-id');
    expect(id).toMatch(/^[0-9a-f-]{36}$/);
    // Results are kept beside the answer, and made anew while sliced files are still being read.
    const counted = async (what: string) => Number((await measures()).get(what));
    const completed = 'vergleich_jobs{queue="sliced-file",state="completed"}';
    await expect.poll(() => counted(completed)).toBeGreaterThan(0);
    const kept = async () => {
      await get(`/studies/${demo}/results/speed`);
      return counted('vergleich_results_kept');
    };
    await expect.poll(kept).toBeGreaterThan(0);
    const now = await measures();
    expect(Number(now.get(name))).toBe(before + 1);
    expect(now.get('vergleich_database_connections{state="waiting"}')).toBe('0');
    expect(now.get('vergleich_link_listening')).toBe('1');
    expect(now.get('vergleich_listeners')).toBe('0');
  });

  it('is not told by a name that somebody else points here', async () => {
    const status = await new Promise((resolve, reject) => {
      request(
        {
          host: '127.0.0.1',
          port: server.port,
          path: '/metrics',
          headers: { host: 'evil.example' },
        },
        (answer) => resolve(answer.resume().statusCode),
      )
        .on('error', reject)
        .end();
    });
    expect(status).toBe(403);
  });
});

describe('text that cannot be kept', () => {
  it('in a sliced file is replaced, and stops neither a page nor the next start', async () => {
    const study = await createFleet(server.url, 1);
    const bytes = strToU8('; layer_height = 0.2\0x\nG1 X10 E1 F600\n; note = \0\u0001\n');
    await sendSliced(study, 'nul.gcode', bytes);
    await untilRead(study);
    for (const page of ['runs', 'line-up', 'plan', 'results/speed']) {
      expect((await fetch(`${server.url}/studies/${study}/${page}`)).status).toBe(200);
    }
    const [[held]] = (await db.sequelize.query(
      "select count(*)::int as n from sliced_files where facts::text like '%' || chr(92) || 'u0000%'",
    )) as unknown as [[{ n: number }]];
    expect(held.n).toBe(0);
    const next = await startServer(databaseUrl);
    await kill(next.child);
  });

  it('in a row is refused with the place', async () => {
    const study = await createFleet(server.url, 1);
    const row = { machine_id: 'm-9', name: 'Nine\0', notes: 'half \ud800' };
    const answer = await call('POST', `/studies/${study}/rows/machines`, row);
    expect(answer.status).toBe(400);
    expect(JSON.stringify(answer.content.issues)).toContain('name');
  });
});

const PNG = (salt: number): Uint8Array => {
  const head = Uint8Array.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);
  return new Uint8Array([...head, ...randomBytes(64), salt]);
};

/** A study with an open print and an incident on it. */
async function withIncident(): Promise<{ study: string; incident: string }> {
  const study = await createFleet(server.url, 1);
  const incident = uuid();
  const row = {
    incident_id: incident,
    machine_id: 'm-1',
    mode: 'tangled',
    cause: 'operator',
    at: '2026-03-02T08:00:00Z',
  };
  expect((await call('POST', `/studies/${study}/rows/incidents`, row)).status).toBe(201);
  return { study, incident };
}

describe('files that arrive at once', () => {
  it('ten pictures of an incident are ten pictures', async () => {
    const { study, incident } = await withIncident();
    const base = `/studies/${study}/incidents/${incident}/photos`;
    const sent = Array.from({ length: 10 }, (_, at) => PNG(at));
    const answers = await Promise.all(sent.map((bytes) => call('PUT', base, bytes as BodyInit)));
    expect(statuses(answers)).toEqual(Array(10).fill(201));
    const paths = answers.map(({ content }) => String(content.path));
    expect(new Set(paths).size).toBe(10);
    for (const [at, path] of paths.entries()) {
      const photo = await fetch(`${server.url}/api/v1${base}?path=${encodeURIComponent(path)}`);
      expect(Buffer.from(await photo.arrayBuffer())).toEqual(Buffer.from(sent[at] ?? []));
    }
  });

  it('sliced files of one name stay beside each other', async () => {
    const study = await createFleet(server.url, 1);
    const files = Array.from({ length: 5 }, (_, at) =>
      strToU8(`; file ${at}\nG1 X${at} E1 F600\n`),
    );
    const paths = await Promise.all(files.map((bytes) => sendSliced(study, 'clip.gcode', bytes)));
    expect(new Set(paths).size).toBe(5);
    const known = await get<{ path: string }[]>(`/studies/${study}/sliced-files`);
    expect(known.map(({ path }) => path).sort()).toEqual([...paths].sort());
    await untilRead(study);
  });

  it('are confirmed together, all of them or none', async () => {
    const study = await createFleet(server.url, 2);
    const [first, second] = await get<{ contender_id: string }[]>(
      `/studies/${study}/rows/contenders`,
    );
    const [part] = await get<{ artefact_id: string }[]>(`/studies/${study}/rows/artefacts`);
    const paths: string[] = [];
    for (const name of ['one.gcode', 'two.gcode']) {
      paths.push(await sendSliced(study, name, strToU8(`; ${name}\nG1 X5 E1 F600\n`)));
    }
    await untilRead(study);
    const send = (files: object[]) =>
      call('PATCH', `/studies/${study}/sliced-files`, JSON.stringify(files), {
        'content-type': 'application/json',
      });
    const confirm = (contenders: (string | undefined)[]) =>
      send(
        paths.map((path, at) => ({
          path,
          contender_id: contenders[at],
          artefact_id: part?.artefact_id,
        })),
      );
    const confirmed = async () =>
      (await get<{ is_confirmed: boolean }[]>(`/studies/${study}/sliced-files`)).filter(
        ({ is_confirmed }) => is_confirmed,
      ).length;
    expect((await confirm([first?.contender_id, 'nobody'])).status).toBe(404);
    expect(await confirmed()).toBe(0);
    expect((await confirm([first?.contender_id, second?.contender_id])).status).toBe(200);
    expect(await confirmed()).toBe(2);
    expect((await send([])).status).toBe(400);
  });

  it('are begun no more than can be on their way', async () => {
    const study = await createFleet(server.url, 1);
    const base = `/studies/${study}/sliced-files`;
    const begin = (at: number, bytes = 10) =>
      call('POST', base, { name: `f${at}.gcode`, bytes, sha256: sha256(strToU8(`file ${at}`)) });
    for (let at = 0; at < 100; at += 1) expect((await begin(at)).status).toBe(200);
    const more = await begin(100);
    expect([more.status, more.content.detail]).toEqual([
      409,
      expect.stringContaining('begun to send 100 files'),
    ]);
    // One that was begun goes on, and where one is given up there is room.
    expect((await begin(7)).content).toEqual({ received: 0 });
    await call('DELETE', `${base}/uploads/${sha256(strToU8('file 7'))}`);
    expect((await begin(100)).status).toBe(200);
    for (let at = 0; at <= 100; at += 1)
      await call('DELETE', `${base}/uploads/${sha256(strToU8(`file ${at}`))}`);
  });

  it('bytes whose answer was lost may be sent once more, and make no second file', async () => {
    const study = await createFleet(server.url, 1);
    const bytes = strToU8('; once\nG1 X5 E1 F600\n');
    const path = await sendSliced(study, 'once.gcode', bytes);
    const again = `/studies/${study}/sliced-files/uploads/${sha256(bytes)}?offset=0`;
    const answer = await call('PUT', again, bytes as BodyInit);
    expect([answer.status, answer.content]).toEqual([200, { path, isKnown: true }]);
    expect(await get<unknown[]>(`/studies/${study}/sliced-files`)).toHaveLength(1);
    const other = again.replace(
      /uploads\/./,
      (start) => `${start.slice(0, -1)}${start.endsWith('0') ? '1' : '0'}`,
    );
    expect((await call('PUT', other, bytes as BodyInit)).status).toBe(404);
    await untilRead(study);
  });
});

describe('writers at once', () => {
  it('edits are kept while readings arrive', async () => {
    const [known] = await get<{ specimen_id: string; dimension_id: string }[]>(
      `/studies/${demo}/readings`,
    );
    const machines = await get<{ machine_id: string; row_version: number }[]>(
      `/studies/${demo}/rows/machines`,
    );
    const edits = machines.map(async ({ machine_id, row_version }) => {
      const found: Answer[] = [];
      for (let at = 0; at < 6; at += 1) {
        const change = { version: row_version + at, change: { firmware: `1.${at}` } };
        found.push(await call('PATCH', `/studies/${demo}/rows/machines/${machine_id}`, change));
      }
      return found;
    });
    const readings = Array.from({ length: 24 }, (_, at) =>
      call('POST', `/studies/${demo}/readings`, {
        reading_id: uuid(),
        specimen_id: known?.specimen_id,
        dimension_id: known?.dimension_id,
        trial: 100 + at,
        value_mm: 10 + at / 100,
        instrument_id: null,
        operator: 'T',
        at: '2026-03-20T10:00:00Z',
      }),
    );
    const edited = (await Promise.all(edits)).flat();
    expect(new Set(statuses(edited))).toEqual(new Set([200]));
    for (const answer of await Promise.all(readings)) {
      expect(answer, JSON.stringify(answer.content)).toMatchObject({ status: 201 });
    }
  });

  it('the same incident twenty times at once is one incident', async () => {
    const study = await createFleet(server.url, 1);
    const row = {
      incident_id: uuid(),
      machine_id: 'm-1',
      mode: 'clogged',
      cause: 'machine',
      at: '2026-03-02T08:00:00Z',
    };
    const answers = await Promise.all(
      Array.from({ length: 20 }, () => call('POST', `/studies/${study}/rows/incidents`, row)),
    );
    expect(answers.filter(({ status }) => status !== 201 && status !== 200)).toEqual([]);
    expect(await get<unknown[]>(`/studies/${study}/rows/incidents`)).toHaveLength(1);
  });
});

describe('one action', () => {
  it('of filling a profile is one revision, whatever number of settings it holds', async () => {
    const study = await createFleet(server.url, 1);
    const lines = Array.from({ length: 3 }, (_, at) => `G1 X${at} Y1 E1 F600`);
    const notes = ['layer_height_mm = 0.2', 'infill_share = 0.15', 'nozzle_temp_c = 210'];
    const text = [...notes.map((note) => `; ${note}`), ...lines].join('\n');
    const path = await sendSliced(study, 'set.gcode', strToU8(text));
    await untilRead(study);
    const before = await revisionOf(study);
    const filled = await call('POST', `/studies/${study}/profile-settings`, {
      path,
      new: { name: 'From the file', kind: 'tuned', parent_id: null },
    });
    expect(filled.status).toBe(200);
    expect(await revisionOf(study)).toBe(before + 1);
    const settings = await get<unknown[]>(`/studies/${study}/rows/profile_settings`);
    expect(settings.length).toBeGreaterThanOrEqual(3);
  });
});

describe('numbers beyond what is real', () => {
  it.each([
    ['planned', { contender_id: 'c-1', artefact_id: 'clip', material_id: 'pla', repeats: 20e6 }],
    ['materials', { material_id: 'x', type: 'PLA', price_per_kg: 1e308 }],
    ['machines', { machine_id: 'x', name: 'X', nozzle_mm: -0.4 }],
  ])('are refused in %s', async (table, row) => {
    const study = await createFleet(server.url, 1);
    const answer = await call('POST', `/studies/${study}/rows/${table}`, row);
    expect(answer.status).toBe(400);
    expect(answer.content.issues).toHaveLength(1);
  });
});

const importZip = (bytes: Uint8Array, key?: string) =>
  call('PUT', `/imports${key === undefined ? '' : `?key=${key}`}`, bytes as BodyInit);

describe('a package', () => {
  it('that is sent again is the same study', async () => {
    const zip = zipped(demoFiles(DEMO_SWEEP));
    const key = uuid();
    const answers = await Promise.all([importZip(zip, key), importZip(zip, key)]);
    const ids = [...answers, await importZip(zip, key)].map(({ content }) => content.study_id);
    expect(new Set(ids).size).toBe(1);
    expect(ids[0]).toBeTypeOf('string');
  });

  it('of empty lines, of duplicates or of thousands of files is refused, and others go on', async () => {
    const blank = zipped(
      changedDemo({ 'readings.csv': (text) => text + '\r\n'.repeat(12_000_000) }),
    );
    const doubled = zipped(
      changedDemo({
        'readings.csv': (text) => {
          const [head = '', first = ''] = text.split('\r\n');
          return [head, ...Array<string>(300_000).fill(first)].join('\r\n');
        },
      }),
    );
    const many: Record<string, Uint8Array> = {};
    for (let at = 0; at < 12_000; at += 1) many[`files/${at}.txt`] = new Uint8Array();
    const bombs = [blank, doubled, zipSync(many)].map((zip) => importZip(zip));
    // Whoever reads a page meanwhile is not kept waiting.
    const reader = async () => {
      const started = performance.now();
      expect((await fetch(`${server.url}/studies/${demo}/question`)).status).toBe(200);
      return performance.now() - started;
    };
    const waits: number[] = [];
    for (let at = 0; at < 10; at += 1) waits.push(await reader());
    const answers = await Promise.all(bombs);
    for (const answer of answers) {
      expect([413, 422]).toContain(answer.status);
      expect(answer.type).toContain('application/problem+json');
      expect(JSON.stringify(answer.content).length).toBeLessThan(1_000_000);
    }
    expect(Math.max(...waits)).toBeLessThan(10_000);
  });

  it('carries its history of changes', async () => {
    const made = await importZip(zipped(demoFiles(join('demo', 'gannet-update'))));
    const study = String(made.content.study_id);
    const change = { version: 1, change: { firmware: 'a new one' } };
    const edited = await call('PATCH', `/studies/${study}/rows/machines/gannet`, change);
    expect(edited.status).toBe(200);
    const packed = async (id: string) => {
      const answer = await fetch(`${server.url}/api/v1/studies/${id}/package`);
      return unzipSync(new Uint8Array(await answer.arrayBuffer()));
    };
    const files = await packed(study);
    const zip = zipSync(files);
    const again = await importZip(zip);
    expect(again, JSON.stringify(again.content)).toMatchObject({ status: 201 });
    const copy = await packed(String(again.content.study_id));
    const historyOf = (held: Record<string, Uint8Array>) => {
      const [, bytes] = Object.entries(held).find(([name]) => name.endsWith('history.csv')) ?? [];
      return new TextDecoder().decode(bytes);
    };
    expect(historyOf(files)).toContain('a new one');
    expect(historyOf(copy)).toBe(historyOf(files));
  });
});

describe('requests that nobody means', () => {
  const HOSTILE: [string, string, string?][] = [
    ['GET', '/api/v1/nowhere'],
    ['GET', '/api/v1/studies/not-an-id'],
    ['GET', '/api/v1/studies/%25zz'],
    ['GET', '/api/v1/studies/%zz'],
    ['GET', '/api/v1/studies/STUDY/rows/no_such_table'],
    ['GET', '/api/v1/studies/STUDY/rows/machines/a%00b'],
    ['GET', '/api/v1/studies/STUDY/evidence?figure=nonsense'],
    ['GET', '/api/v1/studies/STUDY/sliced-files/..%2f..%2fetc%2fpasswd'],
    ['POST', '/api/v1/studies', '{"study_id":"x"}'],
    ['POST', '/api/v1/studies', '{broken'],
    ['DELETE', '/api/v1/studies', ''],
    ['PUT', '/api/v1/imports', 'no zip'],
    ['POST', '/api/v1/studies/01999999-9999-7999-8999-999999999999/meshes?name=a.stl', 'solid'],
    ['POST', '/api/v1/studies/STUDY/readings', '{"trial":2147483648}'],
    ['PUT', '/api/v1/studies/STUDY/sliced-files/uploads/xyz?offset=-1', 'x'],
    ['TRACE', '/api/v1/studies'],
  ];

  it.each(HOSTILE)('%s %s is a problem document', async (method, path, content) => {
    // `fetch` mends addresses and refuses TRACE; what is sent here is sent as it stands.
    const answer = await new Promise<{ status: number; type: string; text: string }>(
      (resolve, reject) => {
        const sent = request(
          {
            host: '127.0.0.1',
            port: server.port,
            method,
            path: path.replace('STUDY', demo),
            headers: { 'content-type': 'application/json' },
          },
          (response) => {
            let text = '';
            response.on('data', (chunk: Buffer) => (text += chunk.toString()));
            response.on('end', () =>
              resolve({
                status: response.statusCode ?? 0,
                text,
                type: response.headers['content-type'] ?? '',
              }),
            );
          },
        );
        sent.on('error', reject);
        sent.end(content);
      },
    );
    expect(answer.status).toBeGreaterThanOrEqual(400);
    expect(answer.status).toBeLessThan(500);
    expect(answer.type).toContain('application/problem+json');
    expect((JSON.parse(answer.text) as { detail: string }).detail).toMatch(/\w+ \w+/);
  });

  it('a study of an id that is taken is told so', async () => {
    const study = await createFleet(server.url, 1);
    const again = { study_id: study, title: 'Another', intent: 'machines' };
    expect((await call('POST', '/studies', again)).status).toBe(409);
  });
});

it('an idle connection is kept longer than clients and proxies keep theirs', async () => {
  const answer = await fetch(`${server.url}/api/v1/studies`);
  expect(answer.headers.get('keep-alive')).toBe('timeout=75');
});

describe('a database that is away', () => {
  it('is told on pages and by the API, and forgotten when it is back', async () => {
    const name = new URL(databaseUrl).pathname.slice(1);
    const admin = openDatabase(process.env.TEST_DATABASE_URL ?? '');
    const allow = async (isAllowed: boolean) => {
      await admin.sequelize.query(`alter database ${name} allow_connections ${isAllowed}`);
      await admin.sequelize.query(
        'select pg_terminate_backend(pid) from pg_stat_activity where datname = $1',
        { bind: [name] },
      );
    };
    try {
      await allow(false);
      const asked = await call('GET', '/studies');
      expect(asked.status).toBe(503);
      expect(asked.content.detail).toContain('The database does not answer');
      const page = await fetch(`${server.url}/studies/${demo}/question`);
      expect(page.status).toBeGreaterThanOrEqual(500);
      expect((await page.text()).length).toBeGreaterThan(500);
    } finally {
      await allow(true);
      await admin.sequelize.close();
    }
    await expect.poll(async () => (await call('GET', '/studies')).status).toBe(200);
  });
});

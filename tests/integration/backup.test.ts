import { execFile, spawn } from 'node:child_process';
import {
  appendFileSync,
  copyFileSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout } from 'node:timers/promises';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openDatabase } from '../../src/data';
import { DEMO_PAIR } from '../support/demo-files';
import { served } from '../support/served';

const app = served(DEMO_PAIR);
const folder = mkdtempSync(join(tmpdir(), 'vergleich-backup-'));
const file = join(folder, 'kept.dump');
const made: string[] = [];

const run = (url: string, ...args: string[]) =>
  new Promise<{ code: number; out: string; err: string }>((resolve) => {
    execFile(
      process.execPath,
      ['bin/vergleich.mjs', ...args],
      { env: { ...process.env, DATABASE_URL: url }, maxBuffer: 1 << 28 },
      (error, out, err) => resolve({ code: error ? Number(error.code) : 0, out, err }),
    );
  });

/** The address of a new database without anything in it. */
async function emptyDatabase(): Promise<string> {
  const name = `test_${randomUUID().replaceAll('-', '')}`;
  await app.db().sequelize.query(`create database ${name}`);
  made.push(name);
  const url = new URL(app.databaseUrl());
  url.pathname = `/${name}`;
  return url.href;
}

const rowsOf = async (url: string, sql: string) => {
  const db = openDatabase(url);
  const [rows] = await db.sequelize.query(sql);
  await db.sequelize.close();
  return rows as Record<string, unknown>[];
};

let restored = '';
let study = '';
beforeAll(async () => {
  const studies = await app.get<{ study_id: string; name: string }[]>('/studies');
  study = studies.find(({ name }) => name === 'clip-bench')?.study_id ?? '';
});
afterAll(async () => {
  for (const name of made) {
    await app.db().sequelize.query(`drop database if exists ${name} with (force)`);
  }
  rmSync(folder, { recursive: true, force: true });
});

describe('a backup', () => {
  it('is of one moment, though readings arrive while it is made', async () => {
    let isMade = false;
    const reading = (at: number) => ({
      reading_id: `0193b3c0-3333-7000-8000-${String(at).padStart(12, '0')}`,
      dimension_id: 'x1',
      specimen_id: 'K7-001',
      trial: 40 + at,
      value_mm: 20.01,
      instrument_id: 'caliper-1',
      operator: 'KM',
      at: '2026-10-01T10:00:00Z',
    });
    const [place] = await rowsOf(
      app.databaseUrl(),
      'select s.specimen_id from specimens s join prints p using (study_id, print_id) where ' +
        `s.study_id = '${study}' and p.artefact_id = 'stair-block' limit 1`,
    );
    const [instrument] = await rowsOf(
      app.databaseUrl(),
      `select instrument_id from instruments where study_id = '${study}' limit 1`,
    );
    const writing = (async () => {
      let sent = 0;
      for (; !isMade; sent += 1) {
        const answer = await app.call('POST', `/studies/${study}/readings`, {
          ...reading(sent),
          ...place,
          ...instrument,
        });
        expect(answer.status).toBe(201);
        // As fast as a hand enters them, and no faster: the backup has its part of the processor.
        await setTimeout(50);
      }
      return sent;
    })();
    const { code, err } = await run(app.databaseUrl(), 'backup', '--to', file);
    isMade = true;
    expect([code, err]).toEqual([0, '']);
    expect(await writing).toBeGreaterThan(0);
    const { migrations, tables } = JSON.parse(readFileSync(`${file}.json`, 'utf8')) as {
      migrations: string[];
      tables: Record<string, { rows: number }>;
    };
    expect(migrations).toContain('001-studies');
    expect(tables.studies?.rows).toBe(2);
  });

  it('is restored elsewhere with every table and content as it was, and results the same', async () => {
    restored = await emptyDatabase();
    const { code, out, err } = await run(restored, 'restore', file);
    expect([code, err]).toEqual([0, '']);
    expect(out).toContain('all as they were');
    // The planner knows at once what has come.
    const counted = `select tablename from pg_stats where attname = 'study_id' and tablename = 'prints'`;
    expect(await rowsOf(restored, counted)).toHaveLength(1);
    const checked = await run(restored, 'check');
    expect([checked.code, checked.out, checked.err]).toEqual([
      0,
      '2 studies: constraints hold, contents are whole, results can be made\n',
      '',
    ]);
    const contents = 'select sha256, bytes::text from stored_files order by sha256';
    const kept = await rowsOf(restored, contents);
    expect(kept.length).toBeGreaterThan(100);
    // The application goes on looking into photos meanwhile: it may have more by now.
    expect(await rowsOf(app.databaseUrl(), contents)).toEqual(expect.arrayContaining(kept));
    const out1 = join(folder, 'one.zip');
    const out2 = join(folder, 'two.zip');
    const [sweep] = await rowsOf(
      restored,
      `select study_id from studies where name = 'gannet-speeds'`,
    );
    const id = String(sweep?.study_id);
    await run(app.databaseUrl(), 'export', id, '--to', out1);
    await run(restored, 'export', id, '--to', out2);
    const results = async (zip: string) => (await run(restored, 'evaluate', zip, '--json')).out;
    expect(await results(out2)).toBe(await results(out1));
  });

  it('that is killed leaves no program running and no file', async () => {
    const target = join(folder, 'killed.dump');
    const dumps = () =>
      rowsOf(
        app.databaseUrl(),
        `select pid from pg_stat_activity where datname = current_database() and application_name = 'pg_dump'`,
      );
    // The dump waits for this table as long as it is held here.
    const held = openDatabase(app.databaseUrl(), { connections: 1 });
    const holding = await held.sequelize.transaction();
    try {
      await held.sequelize.query('lock table artefacts in access exclusive mode', {
        transaction: holding,
      });
      const child = spawn(process.execPath, ['bin/vergleich.mjs', 'backup', '--to', target], {
        env: { ...process.env, DATABASE_URL: app.databaseUrl() },
        stdio: 'ignore',
      });
      await expect.poll(dumps, { timeout: 20_000 }).toHaveLength(1);
      child.kill('SIGKILL');
      await expect.poll(dumps, { timeout: 20_000 }).toHaveLength(0);
      await expect
        .poll(() => readdirSync(folder).filter((name) => name.startsWith('killed')))
        .toEqual([]);
    } finally {
      await holding.rollback();
      await held.sequelize.close();
    }
  });

  it('goes into an empty database only', async () => {
    const { code, err } = await run(restored, 'restore', file);
    expect([code, err]).toEqual([1, expect.stringContaining('is not empty')]);
  });

  it.each([
    ['that was altered', (path: string) => appendFileSync(path, 'x'), 'is not what was backed up'],
    [
      'that is none',
      (path: string) => writeFileSync(`${path}.json`, '{"format":1}'),
      'is not the description of a backup',
    ],
    ['without what lies beside it', (path: string) => rmSync(`${path}.json`), 'is missing'],
    [
      'of a newer program',
      (path: string) =>
        writeFileSync(
          `${path}.json`,
          readFileSync(`${path}.json`, 'utf8').replace('"001-studies"', '"999-later"'),
        ),
      'newer program',
    ],
  ])('%s is refused, and nothing restored', async (_, spoil, words) => {
    const spoilt = join(folder, `${randomUUID()}.dump`);
    copyFileSync(file, spoilt);
    copyFileSync(`${file}.json`, `${spoilt}.json`);
    spoil(spoilt);
    const empty = await emptyDatabase();
    const { code, err } = await run(empty, 'restore', spoilt);
    expect([code, err]).toEqual([1, expect.stringContaining(words)]);
    expect(
      await rowsOf(empty, `select 1 from information_schema.tables where table_schema = 'public'`),
    ).toEqual([]);
  });
});

describe('a database that is not of this application', () => {
  it.each(['backup', 'check'])('is told by %s, and left as it is', async (command) => {
    const empty = await emptyDatabase();
    const args = command === 'backup' ? ['--to', join(folder, 'none.dump')] : [];
    const { code, err } = await run(empty, command, ...args);
    expect([code, err]).toEqual([1, expect.stringContaining('is not of this application')]);
    expect(
      await rowsOf(empty, `select 1 from information_schema.tables where table_schema = 'public'`),
    ).toEqual([]);
  });
});

describe('a check', () => {
  it('names a constraint that older rows break', async () => {
    await rowsOf(
      restored,
      `alter table people add constraint short_names check (length(name) < 3) not valid;
       insert into people (person_id, name, role) values ('0193b3c0-3333-7000-8000-00000000ffff', 'Jo', 'reader');
       alter table people drop constraint short_names;
       update people set name = 'Johanna';
       alter table people add constraint short_names check (length(name) < 3) not valid`,
    );
    const { code, err } = await run(restored, 'check');
    expect([code, err]).toEqual([1, expect.stringContaining('short_names')]);
    await rowsOf(restored, 'alter table people drop constraint short_names');
  });

  it('names a content that is no longer what its hash says', async () => {
    const [chunk] = await rowsOf(
      restored,
      'select sha256 from file_chunks order by sha256 limit 1',
    );
    await rowsOf(
      restored,
      `update file_chunks set data = data || 'x'::bytea where sha256 = '${String(chunk?.sha256)}' and sequence = 0`,
    );
    const { code, err } = await run(restored, 'check');
    expect([code, err]).toEqual([
      1,
      expect.stringContaining(`content does not match its hash: ${String(chunk?.sha256)}`),
    ]);
  });
});

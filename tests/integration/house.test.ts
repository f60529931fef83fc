import * as z from 'zod';
import {
  appendFileSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { pino } from 'pino';
import type { App } from '../../src/server/app';
import { backupPlan, backUpIfDue, readBackIfDue } from '../../src/server/backup/keeper';
import { execute, query, someRow } from '../../src/data/database';
import { apiOf } from '../support/api';
import { freshDatabase } from '../support/database';
import { createFleet } from '../support/fleet';
import { kill, startServer, type Server } from '../support/server';

type Fresh = Awaited<ReturnType<typeof freshDatabase>>;
let fresh: Fresh;
let server: Server;
const home = mkdtempSync(join(tmpdir(), 'vergleich-house-'));
const folder = join(home, 'backups');
const api = apiOf(() => server.url);

beforeAll(async () => {
  fresh = await freshDatabase([]);
});
afterEach(() => kill(server.child));
afterAll(async () => {
  await fresh.drop();
  rmSync(home, { recursive: true, force: true });
});

const start = async (env: Record<string, string>) => {
  server = await startServer(fresh.url, { env });
};
const page = async (path: string) => (await fetch(server.url + path)).text();
const backups = () =>
  readdirSync(folder)
    .filter((name) => name.endsWith('.backup'))
    .sort();

describe('backups that are made by themselves', () => {
  it('are made at once where there is none, and again when their time has come', async () => {
    await start({ BACKUP_DIR: folder, BACKUP_EVERY: '6h' });
    await createFleet(server.url, 2);
    await expect.poll(backups).toHaveLength(1);
    const [name = ''] = backups();
    expect(name).toMatch(/^vergleich-\d{4}-\d\d-\d\dT\d{6}Z\.backup$/);
    const manifest = JSON.parse(readFileSync(join(folder, `${name}.json`), 'utf8')) as {
      dump: { bytes: number };
    };
    expect(manifest.dump.bytes).toBe(readFileSync(join(folder, name)).length);
    await expect.poll(() => page('/people')).toContain(name);
    expect(await page('/people')).not.toContain('longer ago than it should be');
    await kill(server.child);
    // One that is young enough is enough; nothing half made lies about.
    await start({ BACKUP_DIR: folder, BACKUP_EVERY: '6h' });
    await new Promise((resolve) => setTimeout(resolve, 1500));
    expect(readdirSync(folder).sort()).toEqual([name, `${name}.json`]);
    await kill(server.child);
    await execute(fresh.db, `update backups set at = now() - interval '13 hours'`);
    await start({ BACKUP_DIR: folder, BACKUP_EVERY: 'off' });
    expect(await page('/people')).toContain('Automatic backups are off.');
    await kill(server.child);
    await start({ BACKUP_DIR: folder, BACKUP_EVERY: '6h', JOBS: 'elsewhere' });
    expect(await page('/people')).toContain('longer ago than it should be');
    await kill(server.child);
    await start({ BACKUP_DIR: folder, BACKUP_EVERY: '6h' });
    // Both are of one day: the later one is kept.
    await expect.poll(() => backups().filter((one) => one !== name)).toHaveLength(1);
    await expect.poll(backups).toHaveLength(1);
  });

  it('are made by one of those who find one due, and again where somebody took it away', async () => {
    const own = await freshDatabase([]);
    const place = join(home, 'once');
    const plan = { folder: place, everyMs: 6 * 3_600_000 };
    const at = { db: own.db, log: pino({ level: 'silent' }) } as App;
    const made = () => backUpIfDue(at, plan, own.url);
    const both = await Promise.all([made(), made()]);
    expect(both.filter((one) => one !== null)).toHaveLength(1);
    expect(await made()).toBeNull();
    for (const name of readdirSync(place)) rmSync(join(place, name));
    expect(await made()).toMatchObject({ fault: null });
    // One that failed is not tried again at once.
    const blocked = { ...plan, folder: join(place, readdirSync(place)[0] ?? '', 'below') };
    await execute(own.db, `update backups set at = now() - interval '1 day'`);
    expect((await backUpIfDue(at, blocked, own.url))?.fault).toContain('ENOTDIR');
    expect(await made()).toBeNull();
    await execute(own.db, `update backups set at = at - interval '16 minutes'`);
    expect(await made()).toMatchObject({ fault: null });
    await own.drop();
  });

  it('are on where the application keeps its own data, unless they are switched off', () => {
    expect(backupPlan({ KEEP_DIR: '/keep' })).toEqual({
      folder: '/keep/backups',
      everyMs: 24 * 3_600_000,
    });
    expect(backupPlan({ KEEP_DIR: '/keep', BACKUP_DIR: '/other', BACKUP_EVERY: '1h' })).toEqual({
      folder: '/other',
      everyMs: 3_600_000,
    });
    expect(backupPlan({ KEEP_DIR: '/keep', BACKUP_EVERY: 'off' })).toBeNull();
    expect(backupPlan({})).toBeNull();
    expect(() => backupPlan({ BACKUP_DIR: '/x', BACKUP_EVERY: '1s' })).toThrow(
      /BACKUP_EVERY is 1s/,
    );
  });

  it('are read back once a week, and one that is not what it was is told of', async () => {
    const own = await freshDatabase([]);
    const at = { db: own.db, log: pino({ level: 'silent' }) } as App;
    const place = join(home, 'read-back');
    const checks = () =>
      query(
        own.db,
        z.strictObject({ fault: z.string().nullable() }),
        'select fault from backup_checks order by at',
      );
    expect(await readBackIfDue(at, own.url)).toBeNull();
    const made = await backUpIfDue(at, { folder: place, everyMs: 3_600_000 }, own.url);
    expect(await readBackIfDue(at, own.url)).toEqual({ fault: null });
    expect(await readBackIfDue(at, own.url)).toBeNull();
    expect(await checks()).toEqual([{ fault: null }]);
    // The database in which it was read back has gone again.
    expect(
      await query(
        own.db,
        someRow,
        `select 1 from pg_database where datname = 'vergleich_read_back'`,
      ),
    ).toEqual([]);
    await execute(own.db, `update backup_checks set at = now() - interval '8 days'`);
    appendFileSync(made?.file ?? '', 'x');
    expect((await readBackIfDue(at, own.url))?.fault).toMatch(/was changed since it was made/);
    // So is one whose tables come to something else than they were said to.
    await execute(own.db, `update backup_checks set at = now() - interval '8 days'`);
    await execute(own.db, 'delete from backups');
    const again = await backUpIfDue(at, { folder: place, everyMs: 1000 }, own.url);
    const beside = `${again?.file}.json`;
    const manifest = JSON.parse(readFileSync(beside, 'utf8')) as {
      tables: Record<string, { rows: number }>;
    };
    for (const sum of Object.values(manifest.tables)) sum.rows += 1;
    writeFileSync(beside, JSON.stringify(manifest));
    expect((await readBackIfDue(at, own.url))?.fault).toMatch(
      /these tables of .* are not what they were: /,
    );
    await own.drop();
  });

  it('say that they failed, and why, and do not stop anything', async () => {
    const file = join(home, 'a-file');
    writeFileSync(file, '');
    await execute(fresh.db, 'delete from backups');
    await start({ BACKUP_DIR: join(file, 'below') });
    await expect.poll(() => page('/people')).toMatch(/The last try failed:[^]*ENOTDIR/);
    expect((await api.call('GET', '/studies')).status).toBe(200);
  });

  it('are not begun where it makes no sense how often', async () => {
    const started = startServer(fresh.url, {
      env: { BACKUP_DIR: folder, BACKUP_EVERY: 'daily' },
      isHeard: true,
    });
    await expect(started).rejects.toThrow('the server ended with 1');
  });
});

describe('the bin', () => {
  it('holds a deleted study for 30 days, and is empty of it then', async () => {
    await start({});
    const [kept, gone] = [await createFleet(server.url, 1), await createFleet(server.url, 1)];
    for (const study of [kept, gone]) {
      expect((await api.call('DELETE', `/studies/${study}`, { title: 'A fleet' })).status).toBe(
        204,
      );
    }
    expect(await page('/studies')).toContain('Deleted items (');
    expect(await page('/bin')).toMatch(/A fleet[^]*gone for good in[^]*29 days/);
    await execute(
      fresh.db,
      `update studies set deleted_at = now() - interval '29 days 23 hours' where study_id = $1`,
      [kept],
    );
    await execute(
      fresh.db,
      `update studies set deleted_at = now() - interval '30 days 1 minute' where study_id = $1`,
      [gone],
    );
    expect(await page('/bin')).toContain('less than a day');
    await kill(server.child);
    await start({});
    const left = () =>
      query(
        fresh.db,
        z.strictObject({ study_id: z.string() }),
        'select study_id from studies where study_id = any($1::uuid[])',
        [[kept, gone]],
      );
    await expect.poll(left).toEqual([{ study_id: kept }]);
    expect(
      await query(fresh.db, someRow, 'select 1 from planned where study_id = $1', [gone]),
    ).toEqual([]);
    expect((await api.call('POST', `/studies/${gone}`, { action: 'restore' })).status).toBe(404);
    expect((await api.call('POST', `/studies/${kept}`, { action: 'restore' })).status).toBe(204);
    expect(await page('/bin')).toContain('There are no deleted studies.');
  });
});

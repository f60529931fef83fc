import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { pino } from 'pino';
import type { App } from '../../src/server/app';
import { backUpIfDue } from '../../src/server/backup/keeper';
import { execute, select } from '../../src/data/database';
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
const backups = () => readdirSync(folder).filter((name) => name.endsWith('.backup')).sort(); // prettier-ignore

describe('backups that are made by themselves', () => {
  it('are made at once where there is none, and again when their time has come', async () => {
    await start({ BACKUP_DIR: folder, BACKUP_EVERY: '6h' });
    await createFleet(server.url, 2);
    await expect.poll(backups).toHaveLength(1);
    const [name = ''] = backups();
    expect(name).toMatch(/^vergleich-\d{4}-\d\d-\d\dT\d{6}Z\.backup$/);
    const manifest = JSON.parse(readFileSync(join(folder, `${name}.json`), 'utf8')) as { dump: { bytes: number } }; // prettier-ignore
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
    await start({ BACKUP_EVERY: '6h' });
    expect(await page('/people')).toContain('None are made by themselves');
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

  it('say that they failed, and why, and do not stop anything', async () => {
    const file = join(home, 'a-file');
    writeFileSync(file, '');
    await execute(fresh.db, 'delete from backups');
    await start({ BACKUP_DIR: join(file, 'below') });
    await expect.poll(() => page('/people')).toMatch(/The last try failed:[^]*ENOTDIR/);
    expect((await api.call('GET', '/studies')).status).toBe(200);
  });

  it('are not begun where it makes no sense how often', async () => {
    const started = startServer(fresh.url, { env: { BACKUP_DIR: folder, BACKUP_EVERY: 'daily' }, isHeard: true }); // prettier-ignore
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
    expect(await page('/')).toContain('Deleted items (');
    expect(await page('/bin')).toMatch(/A fleet[^]*gone for good in[^]*29 days/);
    await execute(fresh.db, `update studies set deleted_at = now() - interval '29 days 23 hours' where study_id = $1`, [kept]); // prettier-ignore
    await execute(fresh.db, `update studies set deleted_at = now() - interval '30 days 1 minute' where study_id = $1`, [gone]); // prettier-ignore
    expect(await page('/bin')).toContain('less than a day');
    await kill(server.child);
    await start({});
    const left = () => select<{ study_id: string }>(fresh.db, 'select study_id from studies where study_id = any($1::uuid[])', [[kept, gone]]); // prettier-ignore
    await expect.poll(left).toEqual([{ study_id: kept }]);
    expect(await select(fresh.db, 'select 1 from planned where study_id = $1', [gone])).toEqual([]);
    expect((await api.call('POST', `/studies/${gone}`, { action: 'restore' })).status).toBe(404);
    expect((await api.call('POST', `/studies/${kept}`, { action: 'restore' })).status).toBe(204);
    expect(await page('/bin')).toContain('Nothing lies here.');
  });
});

import { execFile, spawn } from 'node:child_process';
import {
  chmodSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { openDatabase } from '../../src/data';
import { freshDatabase } from '../support/database';
import { kill, startServer } from '../support/server';

interface Ended {
  code: number;
  stdout: string;
  stderr: string;
}

/** Runs Node with some arguments to its end. */
const node = (args: readonly string[], env: Record<string, string>): Promise<Ended> =>
  new Promise((resolve) => {
    execFile(
      process.execPath,
      [...args],
      { env: { ...process.env, ...env } },
      (error, stdout, stderr) => {
        resolve({ code: error ? Number(error.code ?? 1) : 0, stdout, stderr });
      },
    );
  });

const folder = mkdtempSync(join(tmpdir(), 'vergleich-start-'));
// The database server runs as another user where this is root, and must get here.
chmodSync(folder, 0o755);
afterAll(() => rmSync(folder, { recursive: true, force: true }));

describe('what is missing or wrong', () => {
  it('is said first, all of it at once', async () => {
    const { code, stdout, stderr } = await node([join('scripts', 'start.mjs')], {
      PORT: 'abc',
      MQTTS_PORT: '70000',
      DATABASE_URL: 'nonsense',
      VERGLEICH_DATA: join(folder, 'untouched'),
    });
    expect(code).toBe(1);
    const said = stdout + stderr;
    expect(said).toContain('PORT is abc: it must be a number');
    expect(said).toContain('MQTTS_PORT is 70000: it must be a number');
    expect(said).toContain('DATABASE_URL is nonsense: it must be like postgres://');
    expect(said).not.toMatch(/\n {4}at /);
    expect(existsSync(join(folder, 'untouched'))).toBe(false);
  });

  it('a database that does not answer is named', async () => {
    const { code, stderr } = await node([join('dist', 'processes', 'web.js')], {
      DATABASE_URL: 'postgres://nobody:x@127.0.0.1:9/none',
    });
    expect(code).toBe(1);
    expect(stderr).toContain('The database in DATABASE_URL cannot be used');
    expect(stderr).toContain('ECONNREFUSED');
  });
});

describe('the server', () => {
  it('ends when it is told to, and when whoever started it goes away', async () => {
    const { url, drop } = await freshDatabase();
    try {
      const told = await startServer(url);
      const ended = new Promise((resolve) => told.child.once('exit', resolve));
      told.child.kill('SIGTERM');
      expect(await ended).toBe(0);
      const left = await startServer(url);
      const gone = new Promise((resolve) => left.child.once('exit', resolve));
      left.child.disconnect();
      expect(await gone).toBe(0);
    } finally {
      await drop();
    }
  });

  it('starts again after it was killed, and another beside it', async () => {
    const { url, drop } = await freshDatabase();
    try {
      await kill((await startServer(url)).child);
      const [one, other] = await Promise.all([startServer(url), startServer(url)]);
      for (const { url: address } of [one, other]) {
        expect((await fetch(`${address}/`)).status).toBe(200);
      }
      await Promise.all([kill(one.child), kill(other.child)]);
    } finally {
      await drop();
    }
  });
});

/** Starts a cluster of its own, says that it runs, and ends it. */
const CLUSTER = `
  const { startCluster } = await import('./scripts/lib/postgres.mjs');
  const { end } = await import('./scripts/lib/lifetime.mjs');
  const cluster = await startCluster('own', { forTests: process.env.FOR_TESTS !== '' });
  console.log(await cluster.createDatabase('there'));
  if (process.env.STAY) await new Promise((resolve) => process.stdin.once('end', resolve).resume());
  await end(Number(process.env.CODE ?? 0));
`;

describe('the command', () => {
  it('works on the database of the application that runs here, and says where none does', async () => {
    const home = join(folder, 'found');
    const SCRIPT = `
      const { startCluster } = await import('./scripts/lib/postgres.mjs');
      const { end } = await import('./scripts/lib/lifetime.mjs');
      const { spawnSync } = await import('node:child_process');
      const check = () => {
        const { DATABASE_URL: _, ...env } = process.env;
        const { stderr } = spawnSync(process.execPath, ['bin/vergleich.mjs', 'check'], { env, encoding: 'utf8' });
        console.log(stderr.trim());
      };
      check();
      const cluster = await startCluster('main', { forTests: true });
      await cluster.createDatabase('vergleich');
      check();
      await end(0);
    `;
    const { stdout } = await node(['--input-type=module', '-e', SCRIPT], { VERGLEICH_DATA: home });
    const said = stdout.split('\n').filter((line) => /DATABASE_URL/.test(line));
    expect(said[0]).toContain('the application does not run here');
    // It is found: nothing was ever started on this one.
    expect(said[1]).toContain('is not of this application');
  });
});

describe('the own cluster', () => {
  it('that was half made is put aside, and made anew', async () => {
    const home = join(folder, 'half');
    // As initdb leaves it when it is killed: the version is written first.
    mkdirSync(join(home, 'own', 'data'), { recursive: true });
    writeFileSync(join(home, 'own', 'data', 'PG_VERSION'), '15\n');
    const { code, stdout } = await node(['--input-type=module', '-e', CLUSTER], {
      VERGLEICH_DATA: home,
    });
    expect(code).toBe(0);
    expect(stdout).toContain('postgres://app:');
    expect(existsSync(join(home, 'own', 'whole'))).toBe(true);
    expect(existsSync(join(home, 'own', 'data', 'postmaster.pid'))).toBe(false);
    expect(readdirSync(join(home, 'own')).length).toBeGreaterThan(3);
  });

  it('is stopped before the process ends, and the process ends with the code that was meant', async () => {
    const { code } = await node(['--input-type=module', '-e', CLUSTER], {
      VERGLEICH_DATA: join(folder, 'half'),
      CODE: '3',
    });
    expect(code).toBe(3);
    expect(existsSync(join(folder, 'half', 'own', 'data', 'postmaster.pid'))).toBe(false);
  });

  it('is started again where it was killed, at the same address, within ten seconds', async () => {
    const home = join(folder, 'killed');
    const env = { ...process.env, VERGLEICH_DATA: home, STAY: '1', FOR_TESTS: '' };
    const child = spawn(process.execPath, ['--input-type=module', '-e', CLUSTER], {
      env,
      stdio: ['pipe', 'pipe', 'inherit'],
    });
    let said = '';
    child.stdout.on('data', (chunk: Buffer) => (said += chunk.toString()));
    const ended = new Promise((resolve) => child.once('exit', resolve));
    await expect.poll(() => said, { timeout: 60_000 }).toMatch(/postgres:\/\/\S+/);
    const url = /postgres:\/\/\S+/.exec(said)?.[0] ?? '';
    const pidFile = join(home, 'own', 'data', 'postmaster.pid');
    const pid = Number(readFileSync(pidFile, 'utf8').split('\n')[0]);
    process.kill(pid, 'SIGKILL');
    const asked = async () => {
      const db = openDatabase(url, { connections: 1 });
      return db.sequelize
        .query('select 1')
        .then(
          () => true,
          () => false,
        )
        .finally(() => void db.sequelize.close());
    };
    await expect.poll(asked, { timeout: 10_000, interval: 250 }).toBe(true);
    expect(Number(readFileSync(pidFile, 'utf8').split('\n')[0])).not.toBe(pid);
    child.stdin.end();
    await ended;
    expect(existsSync(pidFile)).toBe(false);
  });

  it('is shared by two, and the first to go leaves it to the other', async () => {
    const env = { ...process.env, VERGLEICH_DATA: join(folder, 'half'), STAY: '1' };
    const begin = async () => {
      const child = spawn(process.execPath, ['--input-type=module', '-e', CLUSTER], {
        env,
        stdio: ['pipe', 'pipe', 'inherit'],
      });
      const address = await new Promise<string>((resolve) => {
        let said = '';
        child.stdout.on('data', (chunk: Buffer) => {
          said += chunk.toString();
          const found = /postgres:\/\/\S+/.exec(said);
          if (found) resolve(found[0]);
        });
      });
      const ended = new Promise((resolve) => child.once('exit', resolve));
      return { child, address, ended };
    };
    const [first, second] = await Promise.all([begin(), begin()]);
    expect(second.address).toBe(first.address);
    const running = join(folder, 'half', 'own', 'data', 'postmaster.pid');
    first.child.stdin.end();
    await first.ended;
    expect(existsSync(running)).toBe(true);
    second.child.stdin.end();
    await second.ended;
    expect(existsSync(running)).toBe(false);
  });
});

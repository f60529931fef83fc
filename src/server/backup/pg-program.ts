import { spawn } from 'node:child_process';
import { existsSync, readdirSync } from 'node:fs';
import { delimiter, join } from 'node:path';
import { BackupError } from './fault';

/** Where a program of PostgreSQL lies: on the path, or where Debian puts it, the newest first. */
function findProgram(name: string): string {
  const home = '/usr/lib/postgresql';
  const versions = existsSync(home) ? readdirSync(home).sort((a, b) => Number(b) - Number(a)) : [];
  const folders = [
    ...(process.env.PATH ?? '').split(delimiter),
    ...versions.map((version) => join(home, version, 'bin')),
  ];
  const found = folders.map((folder) => join(folder, name)).find((path) => existsSync(path));
  if (!found) throw new BackupError(`${name} is not there: install PostgreSQL's client programs.`);
  return found;
}

/** A database as PostgreSQL's programs take it; the password is in no list of processes. */
function environmentOf(databaseUrl: string): NodeJS.ProcessEnv {
  const { hostname, port, username, password, pathname } = new URL(databaseUrl);
  return {
    PATH: process.env.PATH,
    LC_ALL: 'C.UTF-8',
    PGHOST: hostname.replace(/^\[|\]$/g, ''),
    PGPORT: port || '5432',
    PGUSER: decodeURIComponent(username),
    PGPASSWORD: decodeURIComponent(password),
    PGDATABASE: decodeURIComponent(pathname.slice(1)),
  };
}

/**
 * Runs a program that ends when this process ends, even when it is killed: the program sees a pipe
 * close. Where it is ended so, what it had half written goes too.
 */
const GUARDED = [
  'exec 3<&0',
  '"$@" < /dev/null 3<&- & pid=$!',
  '(cat <&3; kill "$pid" && [ -n "$DRAFT" ] && rm -f -- "$DRAFT") > /dev/null 2>&1 &',
  'wait "$pid"',
].join('\n');

/**
 * Runs a program of PostgreSQL on a database; it ends when this process does.
 *
 * @param draft a file that it writes, which is worth nothing before it has ended
 * @throws BackupError with what it said
 */
export function runProgram(
  name: string,
  args: readonly string[],
  databaseUrl: string,
  draft = '',
): Promise<void> {
  const child = spawn('sh', ['-c', GUARDED, 'sh', findProgram(name), ...args], {
    stdio: ['pipe', 'ignore', 'pipe'],
    env: { ...environmentOf(databaseUrl), DRAFT: draft },
  });
  child.stdin.on('error', () => undefined);
  // Its guard waits for this, and for nothing else.
  child.once('exit', () => child.stdin.destroy());
  let said = '';
  child.stderr.on('data', (part: Buffer) => (said = (said + part.toString()).slice(-4000)));
  return new Promise((resolve, reject) => {
    child.once('error', reject);
    child.once('close', (code) => {
      if (code === 0) resolve();
      else reject(new BackupError(`${name} could not do it:\n${said.trim()}`));
    });
  });
}

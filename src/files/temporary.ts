import { codeOf } from '../core/model/faults';
import { lstatSync, mkdirSync, readdirSync, rmSync } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** Where the processes of this user put files for a while, each in a folder of its own. */
const ROOT = join(tmpdir(), `vergleich-${process.getuid?.() ?? 'user'}`);
const own = join(ROOT, String(process.pid));

/** Makes this process' folder. What others have put in its place is not used. */
function openOwn(): void {
  mkdirSync(ROOT, { recursive: true, mode: 0o700 });
  const facts = lstatSync(ROOT);
  if (!facts.isDirectory() || (process.getuid && facts.uid !== process.getuid())) {
    throw new Error(`${ROOT} belongs to somebody else: set TMPDIR to a folder of your own`);
  }
  mkdirSync(own, { recursive: true, mode: 0o700 });
}

/** Runs some work with a folder of its own, which goes when the work ends. */
export async function withFolder<Result>(
  purpose: string,
  work: (folder: string) => Promise<Result>,
): Promise<Result> {
  openOwn();
  const folder = await mkdtemp(join(own, `${purpose}-`));
  try {
    return await work(folder);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

const isAlive = (pid: number): boolean => {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return codeOf(error) === 'EPERM';
  }
};

/** Clears away what processes have left that were killed, and at the end what this one has. */
export function clearFolders(isLast = false): void {
  try {
    for (const name of readdirSync(ROOT)) {
      const pid = Number(name);
      const isOurs = pid === process.pid;
      if (isOurs ? isLast : !isAlive(pid)) {
        rmSync(join(ROOT, name), { recursive: true, force: true });
      }
    }
  } catch {
    // Nothing was put there, or it belongs to somebody else.
  }
}

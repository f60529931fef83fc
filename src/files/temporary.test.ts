import { existsSync, mkdirSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { spawnSync } from 'node:child_process';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';

const usual = process.env.TMPDIR;
let home: string;

beforeEach(() => {
  home = mkdtempSync(join(tmpdir(), 'vergleich-temporary-'));
  process.env.TMPDIR = home;
  // Where the folders lie is looked up once.
  vi.resetModules();
});

afterEach(() => {
  if (usual === undefined) delete process.env.TMPDIR;
  else process.env.TMPDIR = usual;
  vi.resetModules();
  rmSync(home, { recursive: true, force: true });
});

/** The number of a process that is no more. */
const gone = (): number => spawnSync(process.execPath, ['-e', '']).pid;

describe('a folder for a while', () => {
  it('is there for the work, with what it puts there, and goes with it, also when it fails', async () => {
    const { withFolder } = await import('./temporary');
    const seen: string[] = [];
    const work = async (folder: string) => {
      seen.push(folder);
      writeFileSync(join(folder, 'a'), 'x');
      return await Promise.resolve(readdirSync(folder));
    };
    expect(await withFolder('one', work)).toEqual(['a']);
    const failing = withFolder('one', async (folder) => {
      await work(folder);
      throw new Error('broken');
    });
    await expect(failing).rejects.toThrow('broken');
    expect(new Set(seen).size).toBe(2);
    expect(seen.map(existsSync)).toEqual([false, false]);
    expect(seen[0]?.startsWith(home)).toBe(true);
  });

  it('that a killed process has left is cleared away; those of processes that live stay', async () => {
    const { clearFolders, withFolder } = await import('./temporary');
    await withFolder('one', async (folder) => {
      const root = dirname(dirname(folder));
      const [left, living] = [join(root, String(gone())), join(root, String(process.ppid))];
      for (const one of [left, living]) mkdirSync(join(one, 'reading-x'), { recursive: true });
      clearFolders();
      expect([left, living, folder].map(existsSync)).toEqual([false, true, true]);
      // At its own end a process takes its own with it.
      clearFolders(true);
      expect([living, folder].map(existsSync)).toEqual([true, false]);
      await Promise.resolve();
    });
  });

  it('is not made where somebody else has put something in its place', async () => {
    const { clearFolders, withFolder } = await import('./temporary');
    const name = await withFolder(
      'one',
      async (folder) => await Promise.resolve(dirname(dirname(folder))),
    );
    rmSync(name, { recursive: true });
    writeFileSync(name, 'a file of somebody else');
    await expect(withFolder('one', async () => await Promise.resolve())).rejects.toThrow();
    expect(() => clearFolders()).not.toThrow();
    expect(existsSync(name)).toBe(true);
  });
});

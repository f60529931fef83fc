import { chmodSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { delimiter, join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { checkNeeds, installNeeds } from '../../scripts/lib/needs.mjs';

let folder: string;

/** Puts a program of a test's own in the place of Debian's, which writes down what it is asked. */
function inPlaceOf(name: string, code: number): void {
  const path = join(folder, name);
  writeFileSync(path, `#!/bin/sh\necho "${name} $*" >> "${folder}/asked"\nexit ${code}\n`);
  chmodSync(path, 0o755);
}

const installed = () =>
  readFileSync(join(folder, 'asked'), 'utf8')
    .split('\n')
    .flatMap((line) => /^apt-get install .*force-confold ?(.*)$/.exec(line)?.[1] ?? []);

beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'needs-test-'));
  vi.stubEnv('PATH', `${folder}${delimiter}${process.env.PATH ?? ''}`);
  inPlaceOf('apt-get', 0);
});
afterEach(() => {
  vi.unstubAllEnvs();
  rmSync(folder, { recursive: true, force: true });
});

describe('what a fresh machine lacks', () => {
  it('is told with all else that is wrong, before anything begins', () => {
    vi.stubEnv('PORT', 'abc');
    vi.stubEnv('DATABASE_URL', 'nonsense');
    const told = () => checkNeeds({ isServed: true });
    expect(told).toThrow(/PORT is abc[\s\S]*DATABASE_URL is nonsense/);
    vi.stubEnv('PORT', '4000');
    vi.stubEnv('DATABASE_URL', 'postgres://a:b@localhost:5432/c');
    expect(checkNeeds({ isServed: true })).toEqual([]);
  });

  it('is Chromium without a window alone, where Debian has that', async () => {
    inPlaceOf('apt-cache', 0);
    await installNeeds(['chromium']);
    expect(installed()).toEqual(['chromium-headless-shell']);
  });

  it('is the other Chromium where Debian is older', async () => {
    inPlaceOf('apt-cache', 100);
    await installNeeds(['chromium']);
    expect(installed()).toEqual(['chromium']);
  });

  it('stops nothing where it is only the faster of two', async () => {
    inPlaceOf('apt-get', 100);
    await installNeeds(['chromium-headless-shell']);
    await expect(installNeeds(['chromium'])).rejects.toThrow(/apt-get update/);
  });

  it('is nothing where nothing is missing', async () => {
    await installNeeds([]);
    expect(() => installed()).toThrow(/ENOENT/);
  });
});

import { mkdirSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { zipSync } from 'fflate';
import { afterAll, describe, expect, it } from 'vitest';
import { readPackage } from '../../src/core/model/package';
import { openPackage, PackageError } from '../../src/files/packages';
import { demoFiles } from '../support/demo-files';
import { zipped } from '../support/zip';

const folder = mkdtempSync(join(tmpdir(), 'vergleich-packages-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const write = (name: string, bytes: Uint8Array): string => {
  const path = join(folder, name);
  writeFileSync(path, bytes);
  return path;
};

const faultsOf = async (path: string) => {
  const files = await openPackage(path);
  try {
    return (await readPackage(files)).faults.map(({ file, message }) => `${file}: ${message}`);
  } finally {
    await files.close();
  }
};

describe('hostile packages', () => {
  it('a zip entry that leaves the folder', async () => {
    const bytes = zipped(new Map([...demoFiles(), ['../evil.csv', new Uint8Array([1])]]));
    expect(await faultsOf(write('evil.zip', bytes))).toEqual([
      '../evil.csv: leads outside the package',
    ]);
  });

  it('a zip entry that is a link', async () => {
    const entries = Object.fromEntries(
      [...demoFiles()].map(([path, file]) => [path, new Uint8Array(file)]),
    );
    const bytes = zipSync({
      ...entries,
      'photos/x.png': [new TextEncoder().encode('/etc/passwd'), { os: 3, attrs: 0o120777 << 16 }],
    });
    expect((await faultsOf(write('link.zip', bytes)))[0]).toContain('photos/x.png: is a link');
  });

  it('a zip that unpacks to far more than it is', async () => {
    const bomb = zipSync({ 'readings.csv': new Uint8Array(20 * 1024 * 1024) });
    const started = performance.now();
    expect((await faultsOf(write('bomb.zip', bomb))).join()).toContain(
      'over 200 times its packed size',
    );
    expect(performance.now() - started).toBeLessThan(2000);
  });

  it('what is no zip, and a zip that is cut off', async () => {
    await expect(openPackage(write('text.zip', new TextEncoder().encode('hello')))).rejects.toThrow(
      PackageError,
    );
    const whole = zipped(demoFiles());
    await expect(openPackage(write('cut.zip', whole.slice(0, whole.length / 2)))).rejects.toThrow(
      PackageError,
    );
    await expect(openPackage(join(folder, 'nothing'))).rejects.toThrow(
      'there is no file or folder',
    );
  });

  it('a damaged entry', async () => {
    const bytes = zipped(demoFiles());
    const at = 400;
    bytes.fill(0x55, at, at + 200);
    const reading = faultsOf(write('damaged.zip', bytes));
    await expect(reading).rejects.toThrow(PackageError);
    await expect(reading).rejects.toThrow(/^[\w/.-]+\.\w+ /);
  });

  it('a folder with a link that leads out', async () => {
    const target = join(folder, 'linked');
    mkdirSync(target);
    for (const [name, bytes] of demoFiles()) {
      mkdirSync(dirname(join(target, name)), { recursive: true });
      writeFileSync(join(target, name), bytes);
    }
    symlinkSync('/etc/hostname', join(target, 'host.txt'));
    expect(await faultsOf(target)).toEqual(['host.txt: is a link that leads outside the package']);
    // A cell that names it is at fault too.
    const table = join(target, 'artefacts.csv');
    writeFileSync(table, readFileSync(table, 'utf8').replace(/meshes\/[^,]+/, 'host.txt'));
    expect(await faultsOf(target)).toEqual([
      'artefacts.csv: "host.txt" leads outside the package through a link: put the file itself there',
      'host.txt: is a link that leads outside the package',
    ]);
  });
});

describe('a large table', () => {
  it('with one error in the last of 50 000 rows names that one', async () => {
    const files = demoFiles();
    const text = new TextDecoder().decode(files.get('readings.csv'));
    const [header = '', first = ''] = text.split('\r\n');
    const cells = first.split(',');
    const rows = Array.from({ length: 50_000 }, (_, at) =>
      [...cells.slice(0, 2), at + 1, ...cells.slice(3)].join(','),
    );
    rows.push([...cells.slice(0, 2), 'last', ...cells.slice(3)].join(','));
    files.set('readings.csv', new TextEncoder().encode([header, ...rows].join('\n')));
    expect(await faultsOf(write('large.zip', zipped(files)))).toEqual([
      'readings.csv: "last" is not a number',
    ]);
  });
});

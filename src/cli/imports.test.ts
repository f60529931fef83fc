import { isBuiltin } from 'node:module';
import { build, type BuildOptions, type Metafile } from 'esbuild';
import { beforeAll, describe, expect, it } from 'vitest';
import { command } from '../../scripts/lib/bundles.mjs';

/** What a command reads before it does anything, kB; and the packages that are among it. */
interface Start {
  kilobytes: number;
  packages: Set<string>;
}

const starts = new Map<string, Start>();
/** The packages that are in what was built. */
const packed = new Set<string>();

beforeAll(async () => {
  const options = { ...command, sourcemap: false } as BuildOptions;
  const { metafile } = await build({ ...options, metafile: true, write: false });
  const outputs: Metafile['outputs'] = metafile.outputs;
  for (const { entryPoint } of Object.values(outputs)) {
    const [, name] = /^src\/cli\/([\w-]+)\.ts$/.exec(entryPoint ?? '') ?? [];
    if (name === undefined) continue;
    const start: Start = { kilobytes: 0, packages: new Set() };
    const read = new Set<string>();
    const add = (path: string) => {
      const output = outputs[path];
      if (!output || read.has(path)) return;
      read.add(path);
      for (const [file, { bytesInOutput }] of Object.entries(output.inputs)) {
        start.kilobytes += bytesInOutput / 1000;
        const name = /node_modules\/((?:@[^/]+\/)?[^/]+)/.exec(file)?.[1];
        if (!name || bytesInOutput === 0) continue;
        start.packages.add(name);
        packed.add(name);
      }
      for (const { path: next, kind, external } of output.imports) {
        // What is asked for later, by name, is not read at the start.
        if (kind !== 'import-statement') continue;
        if (external && !isBuiltin(next)) start.packages.add(next);
        add(next);
      }
    };
    for (const [path, output] of Object.entries(outputs))
      if (output.entryPoint === entryPoint) add(path);
    starts.set(name, start);
  }
}, 60_000);

// A processor of today reads and runs some 6 kB a millisecond: the time of a start is what is read for it.
describe('what is read at the start of', () => {
  it('the command itself, its help and its version is what takes arguments apart', () => {
    expect([...(starts.get('main')?.packages ?? [])]).toEqual(['commander']);
    expect(starts.get('main')?.kilobytes).toBeLessThan(80);
  });

  it.each([
    ['toolpath', 350],
    ['mesh', 110],
    ['photo', 850],
    ['validate', 520],
    ['evaluate', 1300],
    ['standings', 1200],
    ['verify', 1550],
  ])('%s is no more than it needs', (command, most) => {
    const { kilobytes = Infinity, packages = new Set() } = starts.get(command) ?? {};
    expect(kilobytes).toBeLessThan(most);
    for (const one of ['sequelize', 'pg', 'umzug', 'react', 'react-dom', 'playwright-core']) {
      expect(packages).not.toContain(one);
    }
  });

  it('sliced files and meshes is nothing of statistics', () => {
    for (const command of ['toolpath', 'mesh']) {
      const found = [...(starts.get(command)?.packages ?? [])];
      expect(found.filter((name) => /^@stdlib\/|^ml-matrix$|^papaparse$/.test(name))).toEqual([]);
    }
  });

  // The database's packages are 1.2 MB of them.
  it.each([
    ['owner-link', 1550],
    ['backup', 1560],
    ['check', 1560],
    ['export', 1620],
    ['import', 1760],
  ])('%s, which works on the database, is its packages and little more', (name, most) => {
    const { kilobytes = Infinity, packages = new Set<string>() } = starts.get(name) ?? {};
    expect(kilobytes).toBeLessThan(most);
    // Packed with the command: what is outside is hundreds of small files.
    const outside = [...packages].filter((one) => !packed.has(one));
    expect(outside).toEqual([]);
    for (const one of ['umzug', 'pino', 'piscina', 'ml-matrix'])
      expect(packages).not.toContain(one);
  });

  it('a link for the owner is nothing of packages of studies, and an export nothing of what reads them', () => {
    const link = starts.get('owner-link')?.packages;
    for (const one of ['papaparse', 'yauzl', 'fflate']) expect(link).not.toContain(one);
    expect(starts.get('export')?.packages).not.toContain('yauzl');
  });

  it('commands that have no database is none of its packages', () => {
    expect(starts.get('verify')?.packages).not.toContain('sequelize');
    expect(starts.get('import')?.packages).toContain('sequelize');
  });
});

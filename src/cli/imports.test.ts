import { isBuiltin } from 'node:module';
import { build, type Metafile } from 'esbuild';
import { beforeAll, describe, expect, it } from 'vitest';
import { command, databasePackages } from '../../scripts/lib/bundles.mjs';

/** What a command reads before it does anything, kB; and the packages that are among it. */
interface Start {
  kilobytes: number;
  packages: Set<string>;
}

const starts = new Map<string, Start>();
/** The packages that are in what was built. */
const packed = new Set<string>();

beforeAll(async () => {
  const { metafile } = await build({
    ...command,
    sourcemap: false,
    metafile: true,
    write: false,
  });
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
        // The database's packages are a file of their own, kept compiled.
        const name = /(?:node_modules\/|^compiled:)((?:@[^/]+\/)?[^/]+)/.exec(file)?.[1];
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

  it.each([
    ['owner-link', 340],
    ['backup', 350],
    ['check', 350],
    ['export', 425],
    ['import', 550],
  ])('%s, which works on the database, is its packages and little more', (name, most) => {
    const { kilobytes = Infinity, packages = new Set<string>() } = starts.get(name) ?? {};
    expect(kilobytes).toBeLessThan(most);
    // Packed with the command: what is outside is hundreds of small files.
    const outside = [...packages].filter((one) => !packed.has(one));
    expect(outside).toEqual([]);
    for (const one of ['umzug', 'pino', 'piscina', 'ml-matrix'])
      expect(packages).not.toContain(one);
  });

  it('the database’s packages is nothing of other databases and of places’ hours', async () => {
    const { metafile } = await build({ ...databasePackages, metafile: true, write: false });
    const [output] = Object.values(metafile.outputs);
    expect(output?.bytes).toBeLessThan(1_250_000);
    // Nothing else is looked for when it starts.
    expect(
      output?.imports
        .filter(({ path }) => !isBuiltin(path) && !path.startsWith('./dialects/'))
        .map(({ path }) => path)
        .sort(),
    ).toEqual(['pg-hstore', 'pg-native']);
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

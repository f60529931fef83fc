import { execFile, spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openDatabase } from '../../src/data';
import { freshDatabase } from '../support/database';
import { changedDemo, DEMO, demoFiles, DEMO_SWEEP } from '../support/demo-files';
import { zipped } from '../support/zip';

const folder = mkdtempSync(join(tmpdir(), 'vergleich-cli-'));
let url: string;
let drop: () => Promise<void>;
beforeAll(async () => {
  ({ url, drop } = await freshDatabase());
});
afterAll(async () => {
  await drop();
  rmSync(folder, { recursive: true, force: true });
});

interface Ended {
  code: number;
  out: string;
  err: string;
}

/** Runs the command; an object among its arguments is what else its environment says. */
const run = (...args: (string | Record<string, string>)[]): Promise<Ended> =>
  new Promise((resolve) => {
    const words = args.filter((one) => typeof one === 'string');
    const more = args.filter((one) => typeof one !== 'string');
    execFile(
      process.execPath,
      ['bin/vergleich.mjs', ...words],
      {
        env: Object.assign({ ...process.env, DATABASE_URL: url }, ...more) as NodeJS.ProcessEnv,
        maxBuffer: 1 << 28,
      },
      (error, out, err) => resolve({ code: error ? Number(error.code) : 0, out, err }),
    );
  });

const write = (name: string, bytes: Uint8Array | string): string => {
  const path = join(folder, name);
  writeFileSync(path, bytes);
  return path;
};

it('has the database’s packages as this V8 keeps them: they are not compiled at every start', () => {
  const asked = `
    const file = require('node:path').resolve('dist/cli/database-packages.cjs');
    const read = require('node:fs').readFileSync;
    const cachedData = read(file + '.compiled');
    const source = require('node:module').wrap(read(file, 'latin1'));
    console.log(new (require('node:vm').Script)(source, { filename: file, cachedData }).cachedDataRejected);`;
  const { stdout, stderr } = spawnSync(process.execPath, ['-e', asked], { encoding: 'utf8' });
  expect([stdout.trim(), stderr]).toEqual(['false', '']);
});

describe('evaluate', () => {
  it('prints one JSON object with the keys of the contract, and nothing else', async () => {
    const { code, out, err } = await run(
      'evaluate',
      DEMO,
      '--json',
      '--alpha',
      '0.1',
      '--seed',
      '7',
    );
    expect(code).toBe(0);
    expect(err).toBe('');
    const results = JSON.parse(out) as Record<string, Record<string, unknown>>;
    expect(results.study).toMatchObject({ reference: 'A-stock', alpha: 0.1, seed: 7 });
    expect(Object.keys(results.pairs ?? {})).toEqual(['accuracy_mm', 'surface', 'ln_print_s']);
    expect(Object.keys(results.accuracy?.['A-stock'] as object)).toEqual(
      expect.arrayContaining(
        (
          'prints specimens dimensions readings bias_mm mae_mm rmse_mm max_abs_mm mean_abs_pct ' +
          'repeatability_mm systematic_mm it_grade it_value it_basis tolerance by_axis by_kind fit ' +
          'cells'
        ).split(' '),
      ),
    );
  });

  it('prints for people, with the verdicts', async () => {
    const { out } = await run('evaluate', DEMO);
    expect(out).toMatch(/Auklet 19 tuned .* better · 0\.\d\d mm/);
    expect(out).toContain('Reference: Auklet 19 stock');
  });

  it('has the sections of the answer, with every key of the contract', async () => {
    const { out } = await run('evaluate', DEMO_SWEEP, '--json');
    const results = JSON.parse(out) as Record<string, Record<string, unknown> | null>;
    expect(Object.keys(results.sweep ?? {})).toEqual(
      expect.arrayContaining([
        'setting',
        'unit',
        'reference',
        'figures',
        'holds_to',
        'limited_by',
        'gain',
      ]),
    );
    expect(results.sweep).toMatchObject({
      setting: 'speed_outer_wall_mm_s',
      unit: 'mm/s',
      holds_to: 'B-200',
      limited_by: [
        { figure: 'surface', why: 'lost', prints_needed: null },
        { figure: 'photo:echo-wall/ringing/raking-left/x', why: 'lost', prints_needed: null },
      ],
    });
    expect(Object.keys(results.effects ?? {})).toEqual(['ln_mae', 'surface_index', 'ln_print_s']);
    expect(Object.keys(results)).toEqual(
      expect.arrayContaining(['panels', 'setup', 'trials', 'ability', 'marks', 'scorecard']),
    );
    expect([results.scorecard, results.panels, results.setup]).toEqual([null, null, null]);
  });

  it('fills in the card that is named, and names those that there are', async () => {
    const winner = async (...args: string[]) => {
      const { out } = await run('evaluate', DEMO, '--json', ...args);
      return (JSON.parse(out) as { scorecard: { winner: string } }).scorecard.winner;
    };
    expect(await winner()).toBe('B-tuned');
    expect(await winner('--card', 'our clip bench')).toBe('B-tuned');
    expect(await winner('--card', 'a first machine')).toBe('A-tuned');
    const { code, out, err } = await run('evaluate', DEMO, '--json', '--card', 'a farm');
    expect([code, out]).toEqual([1, '']);
    expect(err).toContain(
      'there is no card a farm: the cards of this study are our clip bench, a first machine',
    );
    const none = await run('evaluate', DEMO_SWEEP, '--card', 'a farm');
    expect(none.err).toContain('this study has no card with a name');
  });

  it('says for people what it comes to', async () => {
    const { out } = await run('evaluate', DEMO);
    expect(out).toContain('Auklet 19 tuned is better than its stock: ');
    expect(out).toContain('Best for our clip bench so far: Gannet X24 tuned');
    const sweep = await run('evaluate', DEMO_SWEEP);
    expect(sweep.out).toContain('can go to 200 mm/s without loss against 120 mm/s');
  });

  it('takes a zip, a folder within it too', async () => {
    const path = write('demo.zip', zipped(demoFiles(), 'clip-bench/'));
    const [fromZip, fromFolder] = await Promise.all([
      run('evaluate', path, '--json'),
      run('evaluate', DEMO, '--json'),
    ]);
    expect(fromZip.out).toBe(fromFolder.out);
  });
});

describe('validate', () => {
  it('is quiet about a valid package', async () => {
    expect(await run('validate', DEMO)).toEqual({ code: 0, out: '', err: '' });
  });

  it('names every fault on stderr, one a line', async () => {
    const files = changedDemo({
      'noise.csv': (text) => text.replace('idle', 'asleep').replace('48.7', '48,7'),
    });
    const { code, out, err } = await run('validate', write('faults.zip', zipped(files)));
    expect(code).toBe(1);
    expect(out).toBe('');
    expect(
      err
        .trim()
        .split('\n')
        .map((line) => line.split(': ')[0]),
    ).toEqual(['noise.csv:2:state', 'noise.csv:3:-']);
  });
});

describe('exit codes', () => {
  it('1 for wrong input, without a stack trace', async () => {
    for (const args of [
      ['evaluate', '/nowhere'],
      ['validate', write('no.zip', 'no')],
      ['export', 'x', '--to', join(folder, 'x.zip')],
    ]) {
      const { code, err } = await run(...args);
      expect(code, args.join(' ')).toBe(1);
      expect(err).not.toMatch(/\n\s+at /);
      expect(err.trim().length).toBeGreaterThan(10);
    }
  });

  it('2 for wrong usage', async () => {
    for (const args of [
      [],
      ['fly'],
      ['evaluate'],
      ['evaluate', DEMO, '--alpha', '2'],
      ['evaluate', DEMO, '--seed', 'x'],
      ['export', 'x'],
    ]) {
      expect((await run(...args)).code, args.join(' ')).toBe(2);
    }
  });
});

describe('import and export', () => {
  it('bring a study in and out of the database', async () => {
    const imported = await run('import', DEMO);
    expect(imported).toMatchObject({ code: 0, err: '' });
    const to = join(folder, 'out.zip');
    expect(await run('export', imported.out.trim(), '--to', to)).toEqual({
      code: 0,
      out: '',
      err: '',
    });
    expect(readFileSync(to).length).toBeGreaterThan(5000);
    const [again, before] = await Promise.all([
      run('evaluate', to, '--json'),
      run('evaluate', DEMO, '--json'),
    ]);
    expect(again.out).toBe(before.out);
  });

  it('warn of a package that cannot be imported yet: nothing has been printed', async () => {
    const id = (await run('import', DEMO)).out.trim();
    const db = openDatabase(url, { connections: 1 });
    await db.sequelize.query(`truncate prints cascade`);
    await db.sequelize.close();
    const to = join(folder, 'unprinted.zip');
    const { code, err } = await run('export', id, '--to', to);
    expect(code).toBe(0);
    expect(err).toMatch(/^warning: the study has no prints yet/);
    const back = await run('import', to);
    expect(back.code).toBe(1);
    expect(back.err).toContain('prints.csv:1:-');
  });

  it('bring an empty database to its tables and constraints, and mend these before rows are written', async () => {
    const own = await freshDatabase();
    const held = async () => {
      const [rows] = await own.db.sequelize.query(
        `select conname from pg_constraint where contype = 'c' and conname like 'domain\\_%' order by 1`,
      );
      return rows as { conname: string }[];
    };
    try {
      const whole = await held();
      expect(whole.length).toBeGreaterThan(100);
      await own.db.sequelize.query('drop schema public cascade; create schema public');
      const on = { DATABASE_URL: own.url };
      expect((await run('check', on)).err).toContain('is not of this application');
      expect((await run('owner-link', on)).code).toBe(0);
      expect(await held()).toEqual(whole);
      const lost = 'domain_db_a_%';
      await own.db.sequelize.query(
        `do $$ begin execute (select format('alter table noise drop constraint %I', conname) from ` +
          `pg_constraint where conname like '${lost}'); end $$`,
      );
      expect(await held()).toHaveLength(whole.length - 1);
      expect((await run('import', join('demo', 'winter-stock'), on)).code).toBe(0);
      expect(await held()).toEqual(whole);
    } finally {
      await own.drop();
    }
  });

  it('say so where there is no database', async () => {
    const wrong = url.replace(/:\d+\//, ':1/');
    const ended = await new Promise<Ended>((resolve) => {
      execFile(
        process.execPath,
        ['bin/vergleich.mjs', 'import', DEMO],
        { env: { ...process.env, DATABASE_URL: wrong } },
        (error, out, err) => resolve({ code: error ? Number(error.code) : 0, out, err }),
      );
    });
    expect(ended.code).toBe(1);
    expect(ended.err).toContain('cannot be used');
  });
});

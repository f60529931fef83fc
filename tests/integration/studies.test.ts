import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { buffer } from 'node:stream/consumers';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { unzipSync } from 'fflate';
import { QueryTypes } from 'sequelize';
import { v7 as uuid } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { evaluate } from '../../src/core/answers/results';
import { memorySource, readPackage } from '../../src/core/model/package';
import {
  insertReadings,
  type StoredReading,
  writeStudy,
  type Write,
  ConflictError,
  deleteRow,
  findRow,
  insertRow,
  listReadings,
  listStudies,
  countProgress,
  loadSentStudy,
  loadStudy,
  migrate,
  RefusedError,
  supersedeReading,
  updateRow,
  updateStudy,
  deleteStudy,
  restoreStudy,
  storeStudy,
  transact,
  findStudy,
  NotFoundError,
  type Database,
} from '../../src/data';
import {
  openSentStudy,
  TABLE_NAMES,
  type Incident,
  type Reading,
} from '../../src/core/model/study';
import { exportStudy } from '../../src/server/study/export';
import { importStudy } from '../../src/server/study/import';
import { openPackage } from '../../src/files/packages';
import { readPackageOnDisk } from '../../src/files/read-package';
import { packageSettings } from '../../src/files/sliced';
import { freshDatabase } from '../support/database';
import { changedDemo, DEMO, demoFiles } from '../support/demo-files';
import { zipped } from '../support/zip';

let db: Database;
let drop: () => Promise<void>;
const folder = mkdtempSync(join(tmpdir(), 'vergleich-test-'));

beforeAll(async () => {
  ({ db, drop } = await freshDatabase());
});
afterAll(async () => {
  await drop();
  rmSync(folder, { recursive: true, force: true });
});

const zipFile = (name: string, bytes: Uint8Array): string => {
  const path = join(folder, name);
  writeFileSync(path, bytes);
  return path;
};

const importPackage = (path: string) => importStudy(db, path, readPackageOnDisk);

/** Makes a change of a study as KM. */
const write = <Result>(study: string, work: (write: Write) => Promise<Result>) =>
  writeStudy(db, study, 'KM', work);

async function importDemo(): Promise<string> {
  const { studyId } = await importPackage(DEMO);
  if (studyId === null) throw new Error('the demo has faults');
  return studyId;
}

let imported: Promise<string> | null = null;
/** The demo study, for tests that only read it. */
const readDemo = (): Promise<string> => (imported ??= importDemo());

describe('migrations', () => {
  it('run once, however often they are asked for', async () => {
    expect(await migrate(db.sequelize)).toEqual([]);
  });

  it('of a newer program are told, and the database is left as it is', async () => {
    await db.sequelize.query(`insert into migrations (name) values ('999-from-later')`);
    await expect(migrate(db.sequelize)).rejects.toThrow(
      'newer than this program: it has 999-from-later',
    );
    await db.sequelize.query(`delete from migrations where name = '999-from-later'`);
    expect(await migrate(db.sequelize)).toEqual([]);
  });

  it('bring constraints to what rows may hold, also where none ran, unless nobody asks for them', async () => {
    const held = async () => {
      const [rows] = await db.sequelize.query(
        `select conname from pg_constraint where conrelid = 'noise'::regclass and conname like 'domain\\_%' order by 1`,
      );
      return rows;
    };
    const before = await held();
    expect(before.length).toBeGreaterThan(0);
    const { conname } = before[0] as { conname: string };
    await db.sequelize.query(`alter table noise drop constraint "${conname}"`);
    await migrate(db.sequelize, true);
    expect(await held()).toEqual(before.slice(1));
    await migrate(db.sequelize);
    expect(await held()).toEqual(before);
  });
});

describe('import and export', () => {
  it('gives identical tables and files through import, export and import', async () => {
    const files = demoFiles();
    files.set('photos/a.png', new Uint8Array([137, 80, 78, 71, 0, 255]));
    const big = Uint8Array.from({ length: 2_500_000 }, (_, at) => (at * 7919) % 256);
    files.set('mesh/stair.stl', big);
    files.set('own-notes.csv', new TextEncoder().encode('a,b\n1,2\n'));
    const first = await importPackage(zipFile('with-files.zip', zipped(files, 'study/')));
    expect(first.faults).toEqual([]);
    const { zip } = await exportStudy(db, first.studyId ?? '');
    const exported = new Map(Object.entries(unzipSync(await buffer(zip))));
    for (const [path, bytes] of files) {
      const same = Buffer.from(exported.get(path) ?? []).equals(Buffer.from(bytes));
      expect(same, path).toBe(true);
    }
    expect([...exported.keys()].sort()).toEqual([...files.keys()].sort());
    const second = await importPackage(zipFile('again.zip', zipped(exported)));
    const [one, two] = await Promise.all([
      loadStudy(db, first.studyId ?? ''),
      loadStudy(db, second.studyId ?? ''),
    ]);
    expect(two.study.tables).toEqual(one.study.tables);
    expect(two.study.meta).toEqual(one.study.meta);
  });

  it('keeps unknown columns', async () => {
    const files = changedDemo({
      'machines.csv': (text) => text.replaceAll('\r\n', ',blue\r\n').replace(',blue', ',colour'),
    });
    const { studyId } = await importPackage(zipFile('colour.zip', zipped(files)));
    const { zip } = await exportStudy(db, studyId ?? '');
    const exported = unzipSync(await buffer(zip));
    expect(new TextDecoder().decode(exported['machines.csv'])).toBe(
      new TextDecoder().decode(files.get('machines.csv')),
    );
  });

  it('keeps every text as it is, whatever signs are in it', async () => {
    const { content } = await readPackage(memorySource(demoFiles()));
    if (!content) throw new Error('the demo has faults');
    const texts = fc.sample(
      fc.oneof(
        fc.constantFrom(
          '\\N',
          '\\.',
          '\\',
          'a\tb',
          'a\nb',
          'a\r\nb',
          '\\t',
          '"',
          'ä ✓ 🖨',
          '{"a":1}',
        ),
        fc.string({ unit: 'grapheme', minLength: 1 }).filter((text) => !text.includes('\0')),
      ),
      { numRuns: 300, seed: 8 },
    );
    const [sample] = content.study.tables.prints;
    if (!sample) throw new Error('the demo has no prints');
    const prints = texts.map((plate, at) => ({
      ...sample,
      print_id: `odd-${at}`,
      repeat: 100 + at,
      order: null,
      plate,
      ...(at % 2 === 0 && { extras: { more: plate } }),
    }));
    const study = {
      ...content.study,
      tables: { ...content.study.tables, prints: [...content.study.tables.prints, ...prints] },
    };
    const id = uuid();
    await transact(db, (bound) =>
      storeStudy(bound, id, { study, packageExtras: {}, files: new Map(), history: [] }),
    );
    const stored = await loadStudy(db, id);
    const rows = new Map(stored.study.tables.prints.map((row) => [row.print_id, row]));
    for (const print of prints)
      expect(rows.get(print.print_id)).toMatchObject({ plate: print.plate });
    const kept = await db.sequelize.query<{ more: string }>(
      `select extras ->> 'more' as more from prints where study_id = $1 and extras ? 'more' order by repeat`,
      { bind: [id], type: QueryTypes.SELECT },
    );
    expect(kept.map((row) => row.more)).toEqual(texts.filter((_, at) => at % 2 === 0));
  });

  it('is loaded the same by rows and by what the database copies out', async () => {
    const id = await importDemo();
    // Rows that were changed lie elsewhere than they did.
    await db.sequelize.query(
      `update machines set name = name || '.' where study_id = $1 and machine_id = (select ` +
        'min(machine_id) from machines where study_id = $1)',
      { bind: [id] },
    );
    const [{ study }, sent] = await Promise.all([
      loadStudy(db, id),
      loadSentStudy(db, id, TABLE_NAMES),
    ]);
    expect(openSentStudy(sent.study)).toEqual(study);
    const some = openSentStudy((await loadSentStudy(db, id, ['machines'])).study);
    expect(some.tables.machines).toEqual(study.tables.machines);
    expect(some.tables.readings).toEqual([]);
  });

  it('tells the planner at once what is in a table that has grown by much', async () => {
    const empty = await freshDatabase();
    try {
      const { studyId } = await importStudy(empty.db, DEMO, readPackageOnDisk);
      const known = await empty.db.sequelize.query<{ name: string }>(
        `select tablename as name from pg_stats
         where attname = 'study_id' and most_common_vals::text like $1 order by name`,
        { bind: [`%${studyId}%`], type: QueryTypes.SELECT },
      );
      expect(known.map(({ name }) => name)).toEqual(
        expect.arrayContaining(['prints', 'readings', 'specimens']),
      );
    } finally {
      await empty.drop();
    }
  });

  it('counts what is needed by parts and sizes, and what is done where it is needed', async () => {
    const id = await readDemo();
    const { study } = await loadStudy(db, id);
    const { tables } = study;
    const artefactOf = new Map(
      tables.specimens.map((row) => [
        row.specimen_id,
        tables.prints.find((print) => print.print_id === row.print_id)?.artefact_id,
      ]),
    );
    const retired = new Set(
      tables.retired_dimensions.map((row) => `${row.artefact_id}/${row.dimension_id}`),
    );
    const needed = new Set(
      tables.specimens.flatMap((part) =>
        tables.dimensions
          .filter(
            (row) =>
              row.artefact_id === artefactOf.get(part.specimen_id) &&
              !retired.has(`${row.artefact_id}/${row.dimension_id}`),
          )
          .map((row) => `${part.specimen_id}/${row.dimension_id}`),
      ),
    );
    const done = new Set(
      [...tables.readings.filter((row) => row.superseded_at === null), ...tables.unmeasured]
        .map((row) => `${row.specimen_id}/${row.dimension_id}`)
        .filter((place) => needed.has(place)),
    );
    const zones = tables.specimens.flatMap((part) =>
      tables.zones.filter((row) => row.artefact_id === artefactOf.get(part.specimen_id)),
    );
    expect(needed.size).toBeGreaterThan(done.size);
    expect(await countProgress(db, id)).toMatchObject({
      cells_needed: needed.size,
      cells_measured: done.size,
      zones_needed: zones.length,
    });
  });

  it('keeps nothing of a study whose last rows are refused', async () => {
    const { content } = await readPackage(memorySource(demoFiles()));
    if (!content) throw new Error('the demo has faults');
    const before = await listStudies(db);
    const { readings } = content.study.tables;
    const wrong = {
      ...content.study.tables,
      readings: [...readings, { ...readings[0], trial: 0 }],
    };
    const study = { ...content.study, tables: wrong } as typeof content.study;
    const stored = transact(db, (bound) =>
      storeStudy(bound, uuid(), { study, packageExtras: {}, files: new Map(), history: [] }),
    );
    await expect(stored).rejects.toThrow(/domain_trial/);
    expect(await listStudies(db)).toEqual(before);
  });

  describe('many rows', () => {
    const LOST = { instrument_id: 'gone-1' };
    const [SUPERUSER, OTHER] = ['superuser', 'no superuser'] as const;

    /** Stores 1200 readings, one of which is changed, as some role; how many there are then. All is undone. */
    async function storedMany(
      role: string,
      change: Partial<Reading> = {},
      incidents: readonly Incident[] = [],
    ): Promise<number> {
      const { content } = await readPackage(memorySource(demoFiles()));
      const [reading] = content?.study.tables.readings ?? [];
      if (!content || !reading) throw new Error('no study was read');
      const readings = Array.from({ length: 1200 }, (_, at) => ({
        ...reading,
        trial: at + 1,
        ...(at === 1100 && change),
      }));
      const own = [...content.study.tables.incidents, ...incidents];
      const tables = { ...content.study.tables, readings, incidents: own };
      const study = { ...content.study, tables };
      let count = 0;
      const undone = new Error('undone');
      const stored = transact(db, async (bound) => {
        const ask = (sql: string) =>
          bound.sequelize.query(sql, { transaction: bound.transaction ?? null });
        if (role === OTHER) {
          const name = `role_${uuid().replaceAll('-', '')}`;
          for (const sql of [
            `create role ${name}`,
            `grant all on all tables in schema public to ${name}`,
            `grant all on all sequences in schema public to ${name}`,
            `set local role ${name}`,
          ])
            await ask(sql);
        }
        const id = uuid();
        await storeStudy(bound, id, { study, packageExtras: {}, files: new Map(), history: [] });
        await ask('set constraints all immediate');
        const [held] = await ask(`select 1 from readings where study_id = '${id}'`);
        count = held.length;
        // What is changed afterwards is looked up row by row again.
        const lost = `update readings set instrument_id = 'gone-2' where study_id = '${id}' and trial = 1`;
        await expect(ask(lost)).rejects.toThrow(/instrument_id_fkey/);
        throw undone;
      });
      await stored.catch((error: unknown) => {
        if (error !== undone) throw error;
      });
      return count;
    }

    it.each([SUPERUSER, OTHER])('are kept by a %s', async (role) => {
      expect(await storedMany(role)).toBe(1200);
    });

    it('are refused where one names what is not there, in words', async () => {
      await expect(storedMany(SUPERUSER, LOST)).rejects.toThrow(
        'readings: instrument_id gone-1 is not among the instruments.',
      );
    });

    it('are refused where a rule of the database’s own is broken', async () => {
      const { content } = await readPackage(memorySource(demoFiles()));
      const [incident] = content?.study.tables.incidents ?? [];
      if (!incident) throw new Error('no incident');
      const lost = { ...incident, incident_id: 'lost-1', print_id: 'gone-1' };
      await expect(storedMany(SUPERUSER, {}, [lost])).rejects.toThrow(/gone-1/);
    });

    it('are refused by the database where the role may not look them up later', async () => {
      await expect(storedMany(OTHER, LOST)).rejects.toThrow(/instrument_id_fkey/);
    });
  });

  it('keeps nothing where there is a fault', async () => {
    const before = await listStudies(db);
    const files = changedDemo({
      'readings.csv': (text) => text.replace(/KM(?![\s\S]*KM)/, 'KM,x'),
    });
    const outcome = await importPackage(zipFile('fault.zip', zipped(files)));
    expect(outcome.studyId).toBeNull();
    expect(outcome.faults.length).toBeGreaterThan(0);
    expect(await listStudies(db)).toEqual(before);
  });

  it('gives the same results from the database as from the package', async () => {
    const studyId = await readDemo();
    const { study } = await loadStudy(db, studyId);
    const { content } = await readPackage(memorySource(demoFiles()));
    if (!content) throw new Error('the demo has faults');
    const files = await openPackage(DEMO);
    content.study.sliced = await packageSettings(content.study, files, () => undefined);
    await files.close();
    expect(evaluate(study)).toEqual(evaluate(content.study));
    expect(evaluate(study).fairness.filter((row) => row.result === 'confounded')).toHaveLength(1);
  });
});

describe('readings', () => {
  const append = async (study: string, reading: StoredReading): Promise<StoredReading> => {
    const [kept] = await write(study, (one) => insertReadings(one, [reading]));
    if (!kept) throw new Error('the reading is not there');
    return kept;
  };
  const takeBack = (study: string, id: string, at: string) =>
    write(study, (one) => supersedeReading(one, id, at));
  const reading = (more: Partial<StoredReading> = {}): StoredReading => ({
    reading_id: uuid(),
    specimen_id: 'K7-001',
    dimension_id: '',
    trial: 1,
    value_mm: 20.04,
    instrument_id: 'caliper-1',
    operator: 'ZZ',
    at: '2026-04-01T10:00:00+02:00',
    superseded_at: null,
    ...more,
  });
  let studyId: string;
  let place: { specimen_id: string; dimension_id: string };
  beforeAll(async () => {
    studyId = await importDemo();
    const [known] = await listReadings(db, studyId);
    place = {
      specimen_id: String(known?.specimen_id),
      dimension_id: String(known?.dimension_id),
    };
  });

  it('count once however often they are sent', async () => {
    const before = (await listReadings(db, studyId)).length;
    const one = reading(place);
    const kept = await append(studyId, one);
    const again = await append(studyId, one);
    expect(again).toEqual(kept);
    expect((await listReadings(db, studyId)).length).toBe(before + 1);
  });

  it('take the next trial where two benches send the same at once', async () => {
    const operator = 'two';
    const kept = await Promise.all(
      Array.from({ length: 6 }, () => append(studyId, reading({ ...place, operator }))),
    );
    expect(kept.map((row) => row.trial).sort()).toEqual([1, 2, 3, 4, 5, 6]);
  });

  it('are superseded, never taken out', async () => {
    const kept = await append(studyId, reading({ ...place, operator: 'slip' }));
    const at = '2026-04-01T11:00:00+02:00';
    expect((await takeBack(studyId, kept.reading_id, at)).superseded_at).toBe(at);
    const later = '2026-04-01T12:00:00+02:00';
    expect((await takeBack(studyId, kept.reading_id, later)).superseded_at).toBe(at);
    const { study } = await loadStudy(db, studyId, ['readings']);
    const stored = study.tables.readings.filter((row) => row.operator === 'slip');
    expect(stored).toHaveLength(1);
    expect(stored[0]?.superseded_at).toBe(at);
    // Its trial is free again.
    const next = await append(studyId, reading({ ...place, operator: 'slip' }));
    expect(next.trial).toBe(1);
  });

  it('raise the revision', async () => {
    const before = BigInt((await findStudy(db, studyId)).revision);
    await append(studyId, reading({ ...place, operator: 'rev' }));
    expect(BigInt((await findStudy(db, studyId)).revision)).toBe(before + 1n);
  });

  it('of a specimen that is not there are refused', async () => {
    const stray = reading({ ...place, specimen_id: 'nobody' });
    await expect(append(studyId, stray)).rejects.toThrow(RefusedError);
  });
});

describe('rows', () => {
  let studyId: string;
  beforeAll(async () => {
    studyId = await importDemo();
  });
  const key = { machine_id: 'auklet' };

  it('are changed from the version that was seen, and not otherwise', async () => {
    const seen = await findRow(db, studyId, 'machines', key);
    const change = (firmware: string) =>
      write(studyId, (one) => updateRow(one, 'machines', key, { firmware }, seen.row_version));
    const first = await change('2.5');
    expect(first.firmware).toBe('2.5');
    const conflict = await change('2.6').catch((error: unknown) => error);
    expect(conflict).toBeInstanceOf(ConflictError);
    expect((conflict as ConflictError).current).toMatchObject({ firmware: '2.5', row_version: 2 });
  });

  it('taken twice are taken once, and another row with the id is refused', async () => {
    const row = { material_id: 'new', type: 'PLA', uid: null };
    const whole = {
      ...(await findRow(db, studyId, 'materials', { material_id: 'pla-0417' })),
      ...row,
    };
    const { row_version: _, ...clean } = whole;
    const insert = (type: string) =>
      write(studyId, (one) => insertRow(one, 'materials', { ...clean, type }));
    await insert('PLA');
    await insert('PLA');
    await expect(insert('PETG')).rejects.toThrow(ConflictError);
  });

  it('that others name stay', async () => {
    await expect(
      write(studyId, (one) => deleteRow(one, 'contenders', { contender_id: 'A-stock' }, 1)),
    ).rejects.toThrow(RefusedError);
    expect(await findRow(db, studyId, 'contenders', { contender_id: 'A-stock' })).toBeTruthy();
  });

  it('keep what they were, with who and when', async () => {
    const [rows] = await db.sequelize.query(
      "select before, after, who from changes where table_name = 'machines' and who = 'KM'",
    );
    expect(rows).toMatchObject([{ before: { firmware: '2.4.1' }, after: { firmware: '2.5' } }]);
  });
});

describe('a study', () => {
  it('conflicts show how it stands', async () => {
    const studyId = await importDemo();
    const name = (title: string) => write(studyId, (one) => updateStudy(one, { title }, 1));
    await name('One');
    await expect(name('Two')).rejects.toMatchObject({
      current: { title: 'One', row_version: 2 },
    });
  });

  it('that is deleted can be brought back', async () => {
    const studyId = await importDemo();
    await write(studyId, deleteStudy);
    await expect(findStudy(db, studyId)).rejects.toThrow(NotFoundError);
    await restoreStudy(db, studyId);
    expect((await findStudy(db, studyId)).title).toBe('Four machines for the clip bench');
  });

  it('asked for by something that is no id is not there', async () => {
    await expect(findStudy(db, "x' or 1=1")).rejects.toThrow(NotFoundError);
  });
});

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoFiles } from '../../../../tests/support/demo-files';
import { emptyTables, fullRow, type Study } from '../study';
import { readCsv, writeCsv } from './csv';
import { FaultList } from './fault';
import { memorySource, readPackage, writePackage } from '.';

const bytesOf = (text: string) => new TextEncoder().encode(text);

const sourceOf = (texts: ReadonlyMap<string, string>) =>
  memorySource(new Map([...texts].map(([path, text]) => [path, bytesOf(text)])));

const cellText = fc
  .string({ unit: fc.constantFrom('a', ',', '"', '\n', '\r\n', ' ', 'ß', '漢', '0', '.', '😀') })
  .filter((text) => !/\r(?!\n)/.test(text));

describe('CSV', () => {
  it('gives back every cell that was written', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 5 }).chain((width) =>
          fc.array(fc.array(cellText, { minLength: width, maxLength: width }), {
            minLength: 1,
            maxLength: 8,
          }),
        ),
        (rows) => {
          const header = rows[0]?.map((_, at) => `column ${at}`) ?? [];
          const faults = new FaultList();
          const table = readCsv('t.csv', bytesOf(writeCsv(header, rows)), faults);
          expect(faults.isEmpty).toBe(true);
          expect(table?.rows.map((row) => row.cells)).toEqual(rows);
        },
      ),
    );
  });

  it('knows the line at which each row begins, whatever breaks the cells have', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(cellText, cellText), { minLength: 1, maxLength: 8 }),
        (rows) => {
          const text = writeCsv(['a', 'b'], rows);
          const table = readCsv('t.csv', bytesOf(text), new FaultList());
          let line = 2;
          for (const [at, row] of rows.entries()) {
            expect(table?.rows[at]?.line).toBe(line);
            line += 1 + row.join('').split('\n').length - 1;
          }
        },
      ),
    );
  });

  it('never throws, whatever the bytes', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 200 }), (bytes) => {
        readCsv('t.csv', bytes, new FaultList());
      }),
    );
  });
});

const word = fc.string({
  unit: fc.constantFrom('a', 'B', '"', ',', ' ', 'ö', '\n', '漢'),
  minLength: 1,
  maxLength: 12,
});
const maybe = <T>(arbitrary: fc.Arbitrary<T>) => fc.option(arbitrary, { nil: null });
const size = fc.double({ min: 0.001, max: 1e6, noNaN: true });

/** A study of one print whose texts and numbers are anything that a table can hold. */
const anyStudy: fc.Arbitrary<Study> = fc
  .record({
    name: word,
    notes: maybe(word),
    maker: maybe(word),
    mass: maybe(size),
    nominals: fc.array(size, { minLength: 1, maxLength: 5 }),
    values: fc.array(size, { minLength: 1, maxLength: 5 }),
    accuracy: maybe(size),
  })
  .map(({ name, notes, maker, mass, nominals, values, accuracy }) => {
    const tables = emptyTables();
    tables.machines = [fullRow('machines', { machine_id: 'm', name, maker })];
    tables.profiles = [
      fullRow('profiles', {
        profile_id: 'p',
        name,
        kind: 'stock',
        slicer: maker,
        notes,
        uid: '0193b3c0-0000-7000-8000-0000000000aB',
      }),
    ];
    tables.materials = [
      fullRow('materials', { material_id: 'f', type: 'PLA', maker, diameter_mm: mass }),
    ];
    tables.contenders = [
      fullRow('contenders', {
        contender_id: 'c',
        label: name,
        machine_id: 'm',
        profile_id: 'p',
        change: notes,
      }),
    ];
    tables.artefacts = [fullRow('artefacts', { artefact_id: 'a', name, notes })];
    tables.dimensions = nominals.map((nominal_mm, at) => ({
      artefact_id: 'a',
      dimension_id: `d${at}`,
      name,
      axis: 'x',
      kind: 'external',
      nominal_mm,
      lower_tol_mm: null,
      upper_tol_mm: null,
    }));
    tables.prints = [
      fullRow('prints', {
        print_id: 't',
        contender_id: 'c',
        artefact_id: 'a',
        material_id: 'f',
        repeat: 1,
        filament_g: mass,
        outcome: 'success',
        plate: maker,
      }),
    ];
    tables.specimens = [fullRow('specimens', { specimen_id: 's', print_id: 't', code: notes })];
    tables.readings = values.map((value_mm, at) => ({
      specimen_id: 's',
      dimension_id: 'd0',
      trial: at + 1,
      value_mm,
      instrument_id: null,
      operator: maker,
      at: null,
      superseded_at: null,
    }));
    return {
      meta: {
        name: 'any',
        title: name,
        description: notes,
        created: null,
        intent: 'machines',
        factor: null,
        farm: null,
        question: notes,
        reference: 'c',
        smallest_difference: accuracy === null ? {} : { accuracy_mm: accuracy },
        cost: null,
        scorecard: null,
        scorecards: null,
        sweep: null,
        plan: null,
        report: notes === null ? null : { disclosure: notes, parts: ['data', 'answer'] },
      },
      tables,
      present: new Set([
        'machines',
        'profiles',
        'materials',
        'contenders',
        'artefacts',
        'dimensions',
        'prints',
        'specimens',
        'readings',
      ] as const),
    };
  });

describe('packages', () => {
  it('give back the study that was written', async () => {
    await fc.assert(
      fc.asyncProperty(anyStudy, async (study) => {
        const result = await readPackage(sourceOf(writePackage(study)));
        expect(result.faults).toEqual([]);
        expect(result.content?.study.tables).toEqual(study.tables);
        expect(result.content?.study.meta).toEqual(study.meta);
      }),
      { numRuns: 60 },
    );
  });

  it('are written the same when they are read and written again', async () => {
    const first = await readPackage(memorySource(demoFiles()));
    if (!first.content) throw new Error('the demo has faults');
    const texts = writePackage(first.content.study, first.content.descriptorExtras);
    for (const [path, bytes] of demoFiles()) {
      if (!/\.(?:csv|json)$/.test(path)) continue;
      expect(texts.get(path), path).toBe(new TextDecoder().decode(bytes));
    }
  });
});

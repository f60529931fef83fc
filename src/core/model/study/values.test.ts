import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { columnsOf, quote, readCell, TABLE_NAMES, TABLES, tableOfFile, tableSpec } from '.';
import {
  anyNumber,
  choice,
  count,
  currency,
  grade,
  id,
  maybe,
  nonNegative,
  percent,
  positive,
  sha256,
  text,
} from './values';

const isTaken = (schema: { safeParse: (value: unknown) => { success: boolean } }, value: unknown) =>
  schema.safeParse(value).success;

describe('the schema of a value', () => {
  it('is one for all columns of its kind: what is known of it is found out once', () => {
    expect(text()).toBe(text());
    expect(maybe(text())).toBe(maybe(text()));
    expect(maybe(text())).not.toBe(maybe(id()));
    const columns = TABLE_NAMES.flatMap((table) => [...columnsOf(table)]);
    const numbers = columns.filter(({ cell }) => cell === 'number');
    expect(numbers.length).toBeGreaterThan(50);
    expect(new Set(numbers.map(({ schema }) => schema)).size).toBeLessThan(10);
  });

  it('keeps its own words where it may be unknown, and is null where it is not given', () => {
    expect(maybe(positive()).parse(undefined)).toBeNull();
    expect(maybe(positive()).safeParse(-1).error?.issues[0]?.message).toBe('must be over 0');
  });
});

describe('the domain of a value', () => {
  it.each([
    [
      'an id',
      id(),
      ['a', 'A-1._b', 'x'.repeat(64)],
      ['', '-a', '.a', 'a b', 'ä', 'x'.repeat(65), 3],
    ],
    [
      'a text',
      text(),
      ['x', 'zwei Zeilen\nund ein Tab\t', '🙂'],
      ['', 'x\0', '\ud800', 'y'.repeat(20_001)],
    ],
    ['a number', anyNumber(), [0, -1e9, 1e9], [1e9 + 1, -1e10, Number.NaN, Infinity, '3', null]],
    ['one over 0', positive(), [1e-12, 1e9], [0, -1, 2e9]],
    ['one of at least 0', nonNegative(), [0, 1e9], [-1e-9, 2e9]],
    ['a share in per cent', percent(), [0, 55.5, 100], [-0.1, 100.1, '50']],
    ['a count', count(), [1, 1_000_000], [0, 1.5, 1_000_001, -3]],
    ['a count with an end of its own', count(9), [9], [10]],
    ['a grade', grade(), [0, 4], [5, -1, 1.5]],
    ['a currency', currency(), ['EUR', 'SEK'], ['EURO', 'eur', '']],
    ['a digest', sha256(), ['a'.repeat(64), 'F'.repeat(64)], ['a'.repeat(63), 'g'.repeat(64)]],
    ['a word of a list', choice(['x', 'y']), ['x'], ['X', 'z', '']],
    ['what may be unknown', maybe(positive()), [null, undefined, 1], [0, '']],
  ])('%s', (_, schema, taken, refused) => {
    for (const value of taken) expect(isTaken(schema, value), JSON.stringify(value)).toBe(true);
    for (const value of refused) expect(isTaken(schema, value), String(value)).toBe(false);
  });
});

describe('a cell of a table', () => {
  const column = (table: (typeof TABLE_NAMES)[number], name: string) => {
    const found = columnsOf(table).find((one) => one.name === name);
    if (!found) throw new Error(`no column ${name}`);
    return found;
  };
  const nominal = column('dimensions', 'nominal_mm');

  it.each([
    ['20', 20],
    ['-0', null],
    ['1e-3', 0.001],
    ['20.50', 20.5],
  ])('%s is a number', (written, value) => {
    const read = readCell(column('noise', 'db_a'), written);
    if (value === null) expect(read).toEqual({ value: 0 });
    else expect(read).toEqual({ value });
  });

  it.each([
    ['20,1', 'write it with a decimal point, 20.1'],
    [' 20', 'write it without blanks'],
    ['+20', 'is not a number'],
    ['.5', 'is not a number'],
    ['5.', 'is not a number'],
    ['1_000', 'is not a number'],
    ['0x10', 'is not a number'],
    ['Infinity', 'is not a number'],
    ['1e999', 'is too large for a number'],
    ['1e10', 'is beyond anything that can be'],
    ['0', 'must be over 0'],
    ['2\u0000', 'control character'],
  ])('%j is no nominal, and the message says why', (written, why) => {
    const read = readCell(nominal, written);
    expect(read).toHaveProperty('fault');
    expect((read as { fault: string }).fault).toContain(why);
    expect((read as { fault: string }).fault).toContain(quote(written));
  });

  it('that is empty is not known, or must hold a value', () => {
    expect(readCell(column('machines', 'maker'), '')).toEqual({ value: null });
    expect(readCell(nominal, '')).toEqual({ fault: 'is empty, and must hold a value' });
  });

  it('every finite number of a column comes back from its shortest writing', () => {
    const within = fc.double({ min: -1e9, max: 1e9, noNaN: true });
    fc.assert(
      fc.property(within, (value) => {
        const read = readCell(column('noise', 'db_a'), String(value));
        expect(read).toEqual({ value: Object.is(value, -0) ? 0 : value });
      }),
    );
  });
});

describe('a quoted value', () => {
  it('stands on one line and is not endless', () => {
    expect(quote('two\nlines')).toBe('"two\\nlines"');
    expect(quote('x'.repeat(80))).toHaveLength(82);
    expect(quote('x'.repeat(81))).toBe(`"${'x'.repeat(79)}…"`);
  });
});

describe('the tables', () => {
  it('each names only tables before it or itself, so that rows can be written in order', () => {
    for (const [at, name] of TABLE_NAMES.entries()) {
      for (const { table } of tableSpec(name).references ?? []) {
        const before = TABLE_NAMES.indexOf(table as typeof name);
        expect(before, `${name} names ${table}`).toBeGreaterThanOrEqual(0);
        expect(before, `${name} names ${table}`).toBeLessThanOrEqual(at);
      }
    }
  });

  it('have keys and references that are columns of theirs', () => {
    for (const name of TABLE_NAMES) {
      const columns = columnsOf(name).map((column) => column.name);
      const { key, references = [] } = tableSpec(name);
      const named = references.flatMap((one) =>
        'column' in one ? [one.column] : [...one.columns],
      );
      for (const column of [...key, ...named]) expect(columns, name).toContain(column);
    }
  });

  it('are told by the name of their file, in any folder', () => {
    expect(tableOfFile('prints.csv')).toBe('prints');
    expect(tableOfFile('data/prints.csv')).toBe('prints');
    for (const other of ['prints.CSV', 'prints', 'prints.csv.bak', 'constructor.csv', 'x.csv']) {
      expect(tableOfFile(other), other).toBeUndefined();
    }
  });

  it('refuse rows with a required cell that is not there', () => {
    expect(TABLES.materials.row.safeParse({ material_id: 'pla' }).success).toBe(false);
    expect(TABLES.materials.row.parse({ material_id: 'pla', type: 'PLA' })).toEqual({
      material_id: 'pla',
      type: 'PLA',
      maker: null,
      colour: null,
      lot: null,
      diameter_mm: null,
      density_g_cm3: null,
      price_per_kg: null,
      currency: null,
      uid: null,
    });
  });
});

import { QueryTypes } from 'sequelize';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { columnsOf, TABLE_NAMES, type Column, type TableName } from '../../src/core/model/study';
import type { Database } from '../../src/data';
import { domainChecks } from '../../src/data/domains';
import { freshDatabase } from '../support/database';

let db: Database;
let drop: () => Promise<void>;

beforeAll(async () => {
  ({ db, drop } = await freshDatabase());
});
afterAll(() => drop());

const NUMBERS = [
  -1e10,
  -1e9,
  -273.16,
  -1,
  -1e-9,
  0,
  1e-9,
  0.4,
  1,
  2,
  99,
  100,
  100.5,
  101,
  1000,
  1001,
  2199,
  10_000,
  1e6,
  1e6 + 1,
  1e9,
  1.1e9,
  1e308,
];
const TEXTS = [
  '',
  'a',
  'A-1',
  '.a',
  'success',
  'x'.repeat(64),
  'x'.repeat(65),
  'a b',
  '0',
  'a.b-c_D9',
  '_a',
  '-a',
  'é',
  'aé',
  'a\n',
  'a\nb',
  '\na',
];

/** Values that a column might be asked to hold, on both sides of its ends. */
const triedOn = (column: Column): (number | string)[] =>
  column.choices
    ? [...column.choices, 'no-such-word', '']
    : column.cell === 'number'
      ? NUMBERS
      : column.cell === 'whole'
        ? NUMBERS.filter((value) => Number.isInteger(value) && Math.abs(value) < 2 ** 31)
        : column.cell === 'id'
          ? TEXTS
          : column.cell === 'currency'
            ? ['', 'EUR', 'eur', 'EURO']
            : ['', 'a'];

const typeOf = ({ cell }: Column): string =>
  cell === 'number' ? 'double precision' : cell === 'whole' ? 'integer' : 'text';

/** The columns whose domain the database holds. */
const HELD = domainChecks().flatMap(({ table, name, expression }) => {
  const subject = name.replace(/^domain_|_[0-9a-f]{8}$/g, '');
  const column = columnsOf(table).find((one) => one.name === subject);
  return column && column.cell !== 'text' ? [{ table, column, expression }] : [];
});

describe('the database holds what the schemas of rows say', () => {
  it('in each column, on both sides of every end', async () => {
    expect(HELD.length).toBeGreaterThan(150);
    for (const { table, column, expression } of HELD) {
      const isHeldWhole = ['number', 'whole', 'id', 'currency'].includes(column.cell);
      if (!isHeldWhole && !column.choices) continue;
      const tried = triedOn(column);
      const [row] = await db.sequelize.query<{ held: boolean[] }>(
        `select array_agg((${expression}) order by at) as held
         from unnest($1::${typeOf(column)}[]) with ordinality as tried("${column.name}", at)`,
        { bind: [tried], type: QueryTypes.SELECT },
      );
      const wanted = tried.map((value) => column.schema.safeParse(value).success);
      expect(row?.held, `${table}.${column.name} of ${tried.join(', ')}`).toEqual(wanted);
    }
  });

  it('and no number is NaN or infinite', async () => {
    const numbers = HELD.filter(({ column }) => column.cell === 'number');
    expect(numbers.length).toBeGreaterThan(60);
    for (const { table, column, expression } of numbers) {
      const [row] = await db.sequelize.query<{ held: boolean }>(
        `select bool_or(${expression}) as held from unnest(
           array['NaN', 'Infinity', '-Infinity']::double precision[]) as tried("${column.name}")`,
        { type: QueryTypes.SELECT },
      );
      expect(row?.held, `${table}.${column.name}`).toBe(false);
    }
  });

  it('every constraint stands in the database, and none that nobody asks for', async () => {
    const found = await db.sequelize.query<{ name: string }>(
      `select conrelid::regclass::text || '.' || conname as name from pg_constraint
       where contype = 'c' and conname like 'domain\\_%'`,
      { type: QueryTypes.SELECT },
    );
    const wanted = domainChecks().map(({ table, name }: { table: TableName; name: string }) =>
      `${table}.${name}`.toLowerCase(),
    );
    expect(found.map(({ name }) => name.toLowerCase()).sort()).toEqual(wanted.sort());
    expect(TABLE_NAMES.length).toBeGreaterThan(30);
  });
});

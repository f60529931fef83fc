import { codeOf } from '../../core/model/faults';
import * as z from 'zod';
import {
  BaseError,
  ForeignKeyConstraintError,
  UniqueConstraintError,
  type WhereOptions,
} from 'sequelize';
import {
  columnsOf,
  tableSpec,
  type AnyRow,
  type Row,
  type TableName,
  asColumns,
} from '../../core/model/study';
import { query, within, type Database } from '../database';
import { ConflictError, NotFoundError, RefusedError, causeOf } from '../errors';
import type { StoredRow } from '../models/rows';
import type { Write } from '../write';
import { logChange } from './changes';
import { checkCode } from './stickers';
import { followRow, tieAdded } from './ties';

/** Names a row: the values of its table's key. */
export type RowKey<Name extends TableName = TableName> = {
  [Column in keyof Row<Name>]?: unknown;
} & {
  extras?: never;
};

/** A row as it is stored: its columns, and the version that a change names. */
export type Stored<Name extends TableName> = Omit<Row<Name>, 'extras'> & { row_version: number };

/** Picks the rows of a study whose columns have these values. */
const whereIs = (studyId: string, columns: object): WhereOptions<StoredRow> =>
  ({ study_id: studyId, ...columns }) as WhereOptions<StoredRow>;

const selection = (table: TableName, prefix = ''): string =>
  [...columnsOf(table).map((column) => `${prefix}"${column.name}"`), `${prefix}row_version`].join(
    ', ',
  );

const storedSchemas = new Map<TableName, z.ZodType>();

/** What a stored row of a table is. */
function storedSchema<Name extends TableName>(table: Name): z.ZodType<Stored<Name>> {
  const schema =
    storedSchemas.get(table) ?? tableSpec(table).row.extend({ row_version: z.int() }).strict();
  storedSchemas.set(table, schema);
  return schema as z.ZodType<Stored<Name>>;
}

/** Some rows of a table, picked by a query of one's own over `t`. */
export const selectRows = <Name extends TableName>(
  db: Database,
  table: Name,
  rest: string,
  bind: readonly unknown[],
): Promise<Stored<Name>[]> =>
  query(db, storedSchema(table), `select ${selection(table, 't.')} ${rest}`, bind);

/** All rows of a table of a study, in the order in which they came. */
export const listRows = <Name extends TableName>(
  db: Database,
  studyId: string,
  table: Name,
): Promise<Stored<Name>[]> =>
  selectRows(db, table, `from ${table} t where t.study_id = $1 order by t.ordinal`, [studyId]);

/** All rows of several tables of a study. */
export async function listTables<const Name extends TableName>(
  db: Database,
  studyId: string,
  names: readonly Name[],
): Promise<{ [Each in Name]: Stored<Each>[] }> {
  const entries = await Promise.all(
    names.map(async (name) => [name, await listRows(db, studyId, name)] as const),
  );
  return Object.fromEntries(entries) as { [Each in Name]: Stored<Each>[] };
}

/** The rows of a table whose column has a value, in the order in which they came. */
export const listRowsBy = <Name extends TableName>(
  db: Database,
  studyId: string,
  table: Name,
  column: string & keyof Row<Name>,
  value: string,
): Promise<Stored<Name>[]> =>
  selectRows(
    db,
    table,
    `from ${table} t where t.study_id = $1 and t."${column}" = $2 order by t.ordinal`,
    [studyId, value],
  );

/** One row; null where there is none. Within a transaction it is locked until that ends. */
export async function rowOrNull<Name extends TableName>(
  db: Database,
  studyId: string,
  table: Name,
  key: RowKey<Name>,
): Promise<Stored<Name> | null> {
  const found = await db.rows(table).findOne({
    where: whereIs(studyId, key),
    raw: true,
    ...within(db),
    ...(db.transaction && { lock: db.transaction.LOCK.UPDATE }),
  });
  return found && visible(table, asColumns(found));
}

/** One row. @throws NotFoundError where there is none */
export async function findRow<Name extends TableName>(
  db: Database,
  studyId: string,
  table: Name,
  key: RowKey<Name>,
): Promise<Stored<Name>> {
  const found = await rowOrNull(db, studyId, table, key);
  if (!found) throw new NotFoundError(`There is no such row among the ${tableSpec(table).title}.`);
  return found;
}

function visible<Name extends TableName>(table: Name, row: AnyRow): Stored<Name> {
  const columns = columnsOf(table).map(({ name }) => [name, row[name] ?? null] as const);
  return { ...Object.fromEntries(columns), row_version: row.row_version } as Stored<Name>;
}

const keyOf = (table: TableName, row: object): AnyRow =>
  Object.fromEntries(
    tableSpec(table).key.map((column) => [column, asColumns(row)[column] ?? null]),
  );

/**
 * Inserts a row. The same row sent again (same key, same values) is taken for the same.
 *
 * @throws ConflictError where another row has this key
 */
export function insertRow<Name extends TableName>(
  write: Write,
  table: Name,
  row: Row<Name>,
): Promise<Stored<Name>> {
  const { db, studyId } = write;
  return refusing(table, async () => {
    const key = keyOf(table, row);
    const isKeyed = tableSpec(table).key.length > 0;
    const existing = isKeyed ? await rowOrNull(db, studyId, table, key as RowKey<Name>) : null;
    if (existing) {
      const [before, sent] = [asColumns(existing), asColumns(row)];
      const isSame = columnsOf(table).every(({ name }) => before[name] === (sent[name] ?? null));
      if (isSame) return existing;
      throw new ConflictError(`${tableSpec(table).title}: this id is taken.`, existing);
    }
    await checkSticker(write, table, asColumns(row), asColumns(row));
    await db.rows(table).create({ ...asColumns(row), study_id: studyId }, within(db));
    write.touch(table);
    await logChange(write, { table, key, before: null, after: row });
    await tieAdded(write, table);
    return visible(table, { ...asColumns(row), row_version: 1 });
  });
}

/**
 * Updates a row.
 *
 * @param version the version that the change was made from
 * @throws ConflictError with the row as it stands, where somebody else has changed it since
 */
export function updateRow<Name extends TableName>(
  write: Write,
  table: Name,
  key: RowKey<Name>,
  change: Partial<Row<Name>>,
  version: number,
): Promise<Stored<Name>> {
  const { db, studyId } = write;
  return refusing(table, async () => {
    const before = await findRow(db, studyId, table, key);
    checkVersion(before, version);
    const after = { ...before, ...change, row_version: version + 1 };
    await checkSticker(write, table, asColumns(after), asColumns(change));
    await db
      .rows(table)
      .update(
        { ...asColumns(change), row_version: version + 1 },
        { where: whereIs(studyId, key), ...within(db) },
      );
    write.touch(table);
    await logChange(write, { table, key, before, after });
    await followRow(write, table, asColumns(before), asColumns(after));
    return after;
  });
}

/** Deletes a row; its history stays. @throws RefusedError where other rows name it */
export function deleteRow<Name extends TableName>(
  write: Write,
  table: Name,
  key: RowKey<Name>,
  version: number,
): Promise<void> {
  const { db, studyId } = write;
  return refusing(table, async () => {
    const before = await findRow(db, studyId, table, key);
    checkVersion(before, version);
    await db.rows(table).destroy({
      where: whereIs(studyId, key),
      ...within(db),
    });
    write.touch(table);
    await logChange(write, { table, key, before, after: null });
  });
}

/**
 * Deletes one row of a table whose rows may repeat: the one of them that is the same in every column.
 *
 * @throws NotFoundError where no row is the same
 */
export function deleteRepeatable<Name extends TableName>(
  write: Write,
  table: Name,
  row: Row<Name>,
): Promise<void> {
  const { db, studyId } = write;
  return refusing(table, async () => {
    const where = whereIs(studyId, row);
    const count = await db.rows(table).destroy({ where, limit: 1, ...within(db) });
    if (count === 0) throw new NotFoundError('It is not there any more.');
    write.touch(table);
    await logChange(write, { table, key: {}, before: row, after: null });
  });
}

/** A sticker is on one part only. @throws RefusedError */
async function checkSticker(
  write: Write,
  table: TableName,
  row: AnyRow,
  change: AnyRow,
): Promise<void> {
  if (table !== 'specimens' || typeof change.code !== 'string') return;
  await checkCode(write, String(row.specimen_id), change.code);
}

function checkVersion(before: { row_version: number }, version: number): void {
  if (before.row_version === version) return;
  throw new ConflictError('This was changed by somebody else in the meantime.', before);
}

/** Does some work on a table; what the database refuses is said in words. */
export async function refusing<Result>(
  table: TableName,
  work: () => Promise<Result>,
): Promise<Result> {
  try {
    return await work();
  } catch (error) {
    throw error instanceof BaseError ? asRefusal(error, table) : error;
  }
}

/** Turns what the database refuses into words; other database errors stay. */
function asRefusal(error: BaseError, table: TableName): Error {
  const { title } = tableSpec(table);
  if (error instanceof UniqueConstraintError) {
    return new RefusedError(`A row with this key is already among the ${title}.`);
  }
  if (error instanceof ForeignKeyConstraintError) {
    return new RefusedError(
      `The change to the ${title} does not fit: it names a row that is not there, or other rows still name this one.`,
    );
  }
  const cause = causeOf(error);
  if (codeOf(cause) === CHECK_VIOLATION) {
    const constraint = 'constraint' in cause ? String(cause.constraint) : '';
    return new RefusedError(
      `The change to the ${title} does not fit: ${describeConstraint(constraint)}.`,
    );
  }
  return error;
}

const CHECK_VIOLATION = '23514';

/** What a constraint says, from its name: `domain_<column>_<edition>`. */
const describeConstraint = (name: string): string => {
  const column = /^domain_(.+)_[0-9a-f]{8}$/.exec(name)?.[1];
  return column ? `${column} is outside of what it can be` : 'its values do not fit together';
};

import {
  BaseError,
  ForeignKeyConstraintError,
  UniqueConstraintError,
  type Transaction,
  type WhereOptions,
} from 'sequelize';
import { columnsOf, tableSpec, type AnyRow, type TableName } from '../../core/study';
import { change as inChange, select, type Database } from '../database';
import { ConflictError, NotFoundError, RefusedError } from '../errors';
import type { StoredRow } from '../models/rows';
import { logChange } from './changes';
import { raiseRevision } from './studies';

/** Names a row: the values of its table's key. */
export type RowKey = Record<string, string | number | null>;

/** A row as a client sees it: its columns and its version. */
export type VersionedRow = AnyRow & { row_version: number };

const selection = (table: TableName): string =>
  [...columnsOf(table).map((column) => `"${column.name}"`), 'row_version'].join(', ');

/** All rows of a table of a study, in the order in which they came. */
export const listRows = <Found extends VersionedRow = VersionedRow>(
  db: Database,
  studyId: string,
  table: TableName,
  transaction?: Transaction,
): Promise<Found[]> =>
  select<Found>(
    db,
    `select ${selection(table)} from ${table} where study_id = $1 order by ordinal`,
    [studyId],
    transaction,
  );

/** One row. @throws NotFoundError where there is none */
export async function findRow(
  db: Database,
  studyId: string,
  table: TableName,
  key: RowKey,
  transaction?: Transaction,
): Promise<VersionedRow> {
  const found = await db.rows[table].findOne({
    where: { study_id: studyId, ...key } as WhereOptions<StoredRow>,
    raw: true,
    ...(transaction && { transaction, lock: transaction.LOCK.UPDATE }),
  });
  if (!found) throw new NotFoundError(`There is no such row in ${table}.`);
  return visible(table, found as unknown as StoredRow);
}

function visible(table: TableName, row: StoredRow): VersionedRow {
  const columns = columnsOf(table).map(({ name }) => [name, row[name] ?? null] as const);
  return { ...Object.fromEntries(columns), row_version: row.row_version };
}

const keyOf = (table: TableName, row: AnyRow): RowKey =>
  Object.fromEntries(tableSpec(table).key.map((column) => [column, row[column] ?? null]));

/**
 * Adds a row. The same row sent again (same key, same values) is taken for the same.
 *
 * @throws ConflictError where another row has this key
 */
export function insertRow(
  db: Database,
  studyId: string,
  table: TableName,
  row: AnyRow,
  who: string | null,
  within?: Transaction,
): Promise<VersionedRow> {
  return inTransaction(db, within, table, async (transaction) => {
    const key = keyOf(table, row);
    const existing = await findRow(db, studyId, table, key, transaction).catch(ifNotFound);
    if (existing) {
      const isSame = columnsOf(table).every(({ name }) => existing[name] === (row[name] ?? null));
      if (isSame) return existing;
      throw new ConflictError(`${tableSpec(table).title}: this id is taken.`, existing);
    }
    await db.rows[table].create({ ...row, study_id: studyId }, { transaction });
    await raiseRevision(db, studyId, transaction);
    await logChange(db, { studyId, table, key, before: null, after: row, who }, transaction);
    return { ...row, row_version: 1 };
  });
}

const ifNotFound = (error: unknown): null => {
  if (error instanceof NotFoundError) return null;
  throw error;
};

/**
 * Changes a row.
 *
 * @param version the version that the change was made from
 * @throws ConflictError with the row as it stands, where somebody else has changed it since
 */
export function updateRow(
  db: Database,
  studyId: string,
  table: TableName,
  key: RowKey,
  change: AnyRow,
  version: number,
  who: string | null,
): Promise<VersionedRow> {
  return inTransaction(db, undefined, table, async (transaction) => {
    const before = await findRow(db, studyId, table, key, transaction);
    const isNothing = Object.entries(change).every(([name, value]) => before[name] === value);
    if (isNothing) return before;
    if (before.row_version !== version) {
      throw new ConflictError('This was changed by somebody else in the meantime.', before);
    }
    const after: VersionedRow = { ...before, ...change, row_version: version + 1 };
    await db.rows[table].update(
      { ...change, row_version: version + 1 },
      { where: { study_id: studyId, ...key } as WhereOptions<StoredRow>, transaction },
    );
    await raiseRevision(db, studyId, transaction);
    await logChange(db, { studyId, table, key, before, after, who }, transaction);
    return after;
  });
}

/** Takes a row out; its history keeps it. @throws RefusedError where other rows name it */
export function deleteRow(
  db: Database,
  studyId: string,
  table: TableName,
  key: RowKey,
  version: number,
  who: string | null,
  within?: Transaction,
): Promise<void> {
  return inTransaction(db, within, table, async (transaction) => {
    const before = await findRow(db, studyId, table, key, transaction);
    if (before.row_version !== version) {
      throw new ConflictError('This was changed by somebody else in the meantime.', before);
    }
    await db.rows[table].destroy({
      where: { study_id: studyId, ...key } as WhereOptions<StoredRow>,
      transaction,
    });
    await raiseRevision(db, studyId, transaction);
    await logChange(db, { studyId, table, key, before, after: null, who }, transaction);
  });
}

async function inTransaction<Result>(
  db: Database,
  within: Transaction | undefined,
  table: TableName,
  work: (transaction: Transaction) => Promise<Result>,
): Promise<Result> {
  try {
    return within ? await work(within) : await inChange(db, work);
  } catch (error) {
    throw error instanceof BaseError ? asRefusal(error, table) : error;
  }
}

/** Turns what the database refuses into words; other database errors stay. */
export function asRefusal(error: BaseError, table: TableName): Error {
  const { title } = tableSpec(table);
  if (error instanceof UniqueConstraintError) {
    return new RefusedError(`A row with this key is already among the ${title}.`);
  }
  if (error instanceof ForeignKeyConstraintError) {
    return new RefusedError(
      `The change to the ${title} does not fit: it names a row that is not there, or other rows still name this one.`,
    );
  }
  return error;
}

import {
  TABLE_NAMES,
  tableSpec,
  type AnyRow,
  type Reference,
  type Row,
  type TableName,
} from './tables';
import type { Tables } from './study';

/** A row of any table, seen as its columns: what is the same for all tables works on these. */
export const asColumns = (row: object): AnyRow => row as AnyRow;

/** Rows of any table, seen as their columns: the rows themselves, not copies. */
export const rowsAsColumns = (rows: readonly object[]): AnyRow[] => rows as AnyRow[];

/** A study's tables of rows that are seen as columns, table by table. */
export const tablesOf = (rowsOf: (table: TableName) => readonly object[]): Tables =>
  Object.fromEntries(TABLE_NAMES.map((name) => [name, rowsOf(name)])) as Tables;

/** A row as somebody sent it, checked. @throws ZodError for a column that is wrong or unknown */
export const readRow = <Name extends TableName>(table: Name, content: unknown): Row<Name> =>
  tableSpec(table).row.strict().parse(content) as Row<Name>;

/** Whether a text is the name of a table. */
export const isTableName = (text: string): text is TableName =>
  TABLE_NAMES.some((name) => name === text);

/** The table whose rows a reference names: references are written down before the tables have names. */
export const tableOfReference = ({ table }: Pick<Reference, 'table'>): TableName => {
  if (!isTableName(table)) throw new RangeError(`There is no table ${table}.`);
  return table;
};

import * as z from 'zod';
import { asColumns, type TableName } from '../../core/model/study';
import { query, type Database } from '../database';

/** A name of a column as SQL takes it: names of columns come from the tables' own schemas. */
const quoted = (column: string): string => `"${column.replaceAll('"', '""')}"`;

const enteredByRow = z.strictObject({ entered_by: z.string().nullable() });

/** In whose name a row was entered; null where nobody had to say, or there is no such row. */
export async function enteredBy(
  db: Database,
  studyId: string,
  table: TableName,
  key: object,
): Promise<string | null> {
  const columns = Object.entries(asColumns(key));
  const wheres = columns.map(([column], at) => `${quoted(column)} = $${at + 2}`);
  const [found] = await query(
    db,
    enteredByRow,
    `select entered_by from ${quoted(table)} where study_id = $1 and ${wheres.join(' and ')} limit 1`,
    [studyId, ...columns.map(([, value]) => value)],
  );
  return found?.entered_by ?? null;
}

import { v7 as uuid } from 'uuid';
import type { Transaction } from 'sequelize';
import { columnsOf, TABLE_NAMES, type Study, type TableName } from '../../core/study';
import { execute, type Database } from '../database';

/** Rows that are sent to the database in one statement. */
const BATCH = 20_000;

/** Stores a whole study within a transaction, under a new id. */
export async function storeStudy(
  db: Database,
  studyId: string,
  study: Study,
  packageExtras: Record<string, unknown>,
  transaction: Transaction,
): Promise<void> {
  await db.studies.create(
    {
      study_id: studyId,
      ...study.meta,
      package_extras: packageExtras,
      present: [...study.present],
    },
    { transaction },
  );
  for (const table of TABLE_NAMES) {
    const rows = study.tables[table] as object[];
    for (let from = 0; from < rows.length; from += BATCH) {
      await storeRows(db, studyId, table, rows.slice(from, from + BATCH), transaction);
    }
  }
}

async function storeRows(
  db: Database,
  studyId: string,
  table: TableName,
  rows: readonly object[],
  transaction: Transaction,
): Promise<void> {
  const isReadings = table === 'readings';
  const columns = [
    ...(isReadings ? ['reading_id'] : []),
    ...columnsOf(table).map((column) => column.name),
    'extras',
  ];
  const list = columns.map((column) => `"${column}"`).join(', ');
  const sent = isReadings ? rows.map((row) => ({ ...row, reading_id: uuid() })) : rows;
  await execute(
    db,
    `insert into ${table} (study_id, ${list})
     select $1::uuid, ${list} from jsonb_populate_recordset(null::${table}, $2::jsonb)`,
    [studyId, JSON.stringify(sent)],
    transaction,
  );
}

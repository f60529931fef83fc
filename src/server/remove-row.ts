import { tableSpec, type TableName } from '../core/study';
import {
  deleteRow,
  findRow,
  inChange,
  insertRow,
  NotFoundError,
  rowsNaming,
  type RowKey,
  type Transaction,
} from '../data';
import { app } from './app';
import { RequestError } from './http/problem';

/** Rows that only say something of another one, under its key: they go with it. */
const GOES_WITH: Partial<Record<TableName, readonly TableName[]>> = {
  dimensions: ['dimension_places', 'retired_dimensions'],
  ladder_steps: ['ladder_places'],
  zones: ['zone_places'],
};

/** What makes that a dimension was measured. */
const MEASURED = ['readings', 'unmeasured'] as const;

/**
 * Takes a row out that no other row needs. A dimension that was measured is kept as retired: its
 * readings stay as they are, nobody is asked to measure it any more, and it leaves the results.
 *
 * @throws RequestError where other rows name it, with which
 */
export async function removeRow(
  studyId: string,
  table: TableName,
  key: RowKey,
  version: number,
  who: string | null,
): Promise<{ isRetired: boolean }> {
  const { db } = app();
  return inChange(db, async (transaction) => {
    const naming = await rowsNaming(db, studyId, table, key, transaction);
    const has = (other: TableName) => (naming.get(other) ?? 0) > 0;
    if (table === 'dimensions' && MEASURED.some(has)) {
      if (has('retired_dimensions')) {
        throw new RequestError(422, 'It is retired already: its readings keep it.');
      }
      const row = { ...key, at: new Date().toISOString(), reason: null };
      await insertRow(db, studyId, 'retired_dimensions', row, who, transaction);
      return { isRetired: true };
    }
    const companions = GOES_WITH[table] ?? [];
    for (const [other, count] of naming) {
      if (count === 0 || companions.includes(other)) continue;
      throw new RequestError(
        422,
        `${count} of the ${tableSpec(other).title} still ${count === 1 ? 'names' : 'name'} this: take out what names it first.`,
      );
    }
    for (const other of companions) await removeIfThere(studyId, other, key, who, transaction);
    await deleteRow(db, studyId, table, key, version, who, transaction);
    return { isRetired: false };
  });
}

async function removeIfThere(
  studyId: string,
  table: TableName,
  key: RowKey,
  who: string | null,
  transaction: Transaction,
): Promise<void> {
  const { db } = app();
  const row = await findRow(db, studyId, table, key, transaction).catch((error: unknown) => {
    if (error instanceof NotFoundError) return null;
    throw error;
  });
  if (row) await deleteRow(db, studyId, table, key, row.row_version, who, transaction);
}

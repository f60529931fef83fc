import { tableSpec, type TableName, asColumns, readRow } from '../../core/model/study';
import {
  deleteRepeatable,
  deleteRow,
  findStudy,
  insertRow,
  rowOrNull,
  rowsNaming,
  writeStudy,
  type RowKey,
  type Write,
} from '../../data';
import type { App } from '../app';
import { RequestError } from '../http/problem';
import { checkPanelRow } from './panels';

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
export function removeRow(
  app: App,
  studyId: string,
  table: TableName,
  key: RowKey,
  version: number,
  who: string | null,
): Promise<{ isRetired: boolean }> {
  return writeStudy(app.db, studyId, who, async (write) => {
    await checkPanelRow(write, table, key);
    const naming = await rowsNaming(write.db, studyId, table, key);
    const has = (other: TableName) => (naming.get(other) ?? 0) > 0;
    if (table === 'dimensions' && MEASURED.some(has)) {
      if (has('retired_dimensions')) {
        throw new RequestError(422, 'It is retired already, because it has readings.');
      }
      const { artefact_id, dimension_id } = asColumns(key);
      await insertRow(write, 'retired_dimensions', {
        artefact_id: String(artefact_id),
        dimension_id: String(dimension_id),
        at: new Date().toISOString(),
        reason: null,
      });
      return { isRetired: true };
    }
    if (table === 'contenders') {
      const { reference } = await findStudy(write.db, studyId);
      if (reference === asColumns(key).contender_id) {
        throw new RequestError(422, 'It is the reference of this study: choose another one first.');
      }
    }
    const companions = GOES_WITH[table] ?? [];
    for (const [other, count] of naming) {
      if (count === 0 || companions.includes(other)) continue;
      throw new RequestError(
        422,
        `${count} of the ${tableSpec(other).title} still ${count === 1 ? 'names' : 'name'} this: ` +
          'take out what names it first.',
      );
    }
    for (const other of companions) await removeIfThere(write, other, key);
    await deleteRow(write, table, key, version);
    return { isRetired: false };
  });
}

async function removeIfThere(write: Write, table: TableName, key: RowKey): Promise<void> {
  const row = await rowOrNull(write.db, write.studyId, table, key);
  if (row) await deleteRow(write, table, key, row.row_version);
}

/**
 * Takes out a row of a table whose rows may repeat; it is named by all that it says.
 *
 * @throws RequestError where rows of the table are named by their key, NotFoundError where none is like it
 */
export function removeRepeatable(
  app: App,
  studyId: string,
  table: TableName,
  content: unknown,
  who: string | null,
): Promise<void> {
  const { key, title } = tableSpec(table);
  if (key.length > 0) throw new RequestError(422, `The ${title} are named by ${key.join('/')}.`);
  const said = readRow(table, content);
  return writeStudy(app.db, studyId, who, (write) => deleteRepeatable(write, table, said));
}

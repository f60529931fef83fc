import { z } from 'zod';
import { breachesOf } from '../core/package';
import { TABLE_NAMES, tableSpec, type AnyRow, type TableName } from '../core/study';
import {
  brokenReferences,
  findRow,
  findStudy,
  insertRow,
  machineOfPrint,
  updateRow,
  updateStudy,
  type RowKey,
  type VersionedRow,
} from '../data';
import { app } from './app';
import { RequestError } from './http/problem';
import { queueUnread } from './jobs';
import { benchIssues } from './rows-bench';

/** The table of an address. Readings are appended by an endpoint of their own. */
export function tableOf(name: string): TableName {
  if (!(TABLE_NAMES as string[]).includes(name)) {
    throw new RequestError(400, `There is no table ${name}.`);
  }
  if (name === 'readings') {
    throw new RequestError(400, 'Readings are appended under /readings, and never changed.');
  }
  return name as TableName;
}

/** The key of a row from the parts of an address, in the order of the table's key. */
export function keyOf(table: TableName, path: string): RowKey {
  const { key, row } = tableSpec(table);
  const parts = path.split('/').map(decodeURIComponent);
  if (parts.length !== key.length) {
    throw new RequestError(400, `A row of ${table} is named by ${key.join('/')}.`);
  }
  const shape = z.object(Object.fromEntries(key.map((column) => [column, z.coerce.string()])));
  const named = shape.parse(Object.fromEntries(key.map((column, at) => [column, parts[at]])));
  const isNumber = (column: string) => {
    const inner = row.shape[column] as z.ZodType;
    return ((inner.meta() ?? {}) as { cell?: string }).cell === 'whole' || column === 'distance_m';
  };
  return Object.fromEntries(
    key.map((column) => {
      const text = String(named[column]);
      return [column, isNumber(column) ? Number(text) : text];
    }),
  );
}

interface Issue {
  path: string;
  message: string;
}

async function checkRow(studyId: string, table: TableName, row: AnyRow): Promise<void> {
  const issues: Issue[] = breachesOf(table, row).map(({ column, message }) => ({
    path: column,
    message,
  }));
  const { db } = app();
  for (const { column, message } of await brokenReferences(db, studyId, table, row)) {
    issues.push({ path: column, message });
  }
  if (table === 'incidents' && typeof row.print_id === 'string') {
    const machine = await machineOfPrint(db, studyId, row.print_id);
    if (machine === null) issues.push({ path: 'print_id', message: 'is not among the prints' });
    else if (machine !== row.machine_id) {
      issues.push({ path: 'machine_id', message: `is not the machine of this print (${machine})` });
    }
  }
  issues.push(...(await benchIssues(studyId, table, row)));
  const [first] = issues;
  if (first) throw new RequestError(422, `${first.path} ${first.message}`, { issues });
}

/** The first contender is the reference until another is chosen. */
async function chooseFirstReference(
  studyId: string,
  contenderId: string,
  who: string | null,
): Promise<void> {
  const { db } = app();
  const record = await findStudy(db, studyId);
  if (record.reference !== null) return;
  await updateStudy(db, studyId, { reference: contenderId }, record.version, who);
}

/** Adds a row that a client sent, once it is checked. */
export async function addRow(
  studyId: string,
  table: TableName,
  content: unknown,
  who: string | null,
): Promise<VersionedRow> {
  const row = tableSpec(table).row.strict().parse(content) as AnyRow;
  await checkRow(studyId, table, row);
  const { db } = app();
  const added = await insertRow(db, studyId, table, row, who);
  if (table === 'contenders') await chooseFirstReference(studyId, String(row.contender_id), who);
  return added;
}

/** Changes some columns of a row, once the row as it would be is checked. */
export async function changeRow(
  studyId: string,
  table: TableName,
  key: RowKey,
  change: unknown,
  version: number,
  who: string | null,
): Promise<VersionedRow> {
  const { row, key: keyColumns } = tableSpec(table);
  const checked = row.partial().strict().parse(change);
  // A column that is not sent stays as it is: defaults are for new rows.
  const sent = Object.fromEntries(
    Object.entries(checked).filter(([column]) => Object.hasOwn(change as object, column)),
  );
  for (const column of keyColumns) {
    if (column in sent && sent[column] !== key[column]) {
      throw new RequestError(422, `${column} names the row and cannot be changed.`);
    }
  }
  const { row_version: _, ...before } = await findRow(app().db, studyId, table, key);
  await checkRow(studyId, table, { ...before, ...sent });
  const changed = await updateRow(app().db, studyId, table, key, sent, version, who);
  // Sliced files are read against their machine's claim: another one is read against anew.
  if (table === 'machines' || table === 'contenders') await queueUnread(app());
  return changed;
}

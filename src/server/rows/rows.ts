import { tableSpec, type Row, type TableName, readRow, asColumns } from '../../core/model/study';
import {
  findRow,
  findStudy,
  giveLetters,
  insertRow,
  listChanges,
  listRows,
  listRowsBy,
  updateRow,
  updateStudy,
  withStickers,
  writeStudy,
  type RowKey,
  type Stored,
  type Write,
} from '../../data';
import { checkOwn } from '../access/own';
import { afterwards, type App } from '../app';
import { RequestError } from '../http/problem';
import { queueUnread } from '../jobs';
import { noteLevel } from './level';
import { checkRow } from './check';
import { followFirmware } from './firmware';
import { moveIncidents } from './moved-print';
import { checkPanelRow } from './panels';

/** All rows of a table. @throws NotFoundError for an unknown study */
export async function rowsOf(
  app: App,
  studyId: string,
  table: TableName,
): Promise<Stored<TableName>[]> {
  await findStudy(app.db, studyId);
  return listRows(app.db, studyId, table);
}

/** One row. @throws NotFoundError */
export async function rowOf(
  app: App,
  studyId: string,
  table: TableName,
  key: RowKey,
): Promise<Stored<TableName>> {
  await findStudy(app.db, studyId);
  return findRow(app.db, studyId, table, key);
}

/** What was changed on a row, the latest first. */
export async function historyOfRow(app: App, studyId: string, table: TableName, key: RowKey) {
  await findStudy(app.db, studyId);
  return listChanges(app.db, studyId, table, key);
}

/** Inserts a row that a client sent, once it is checked, as part of a write. */
export async function insertChecked<Name extends TableName>(
  write: Write,
  table: Name,
  content: unknown,
): Promise<Stored<Name>> {
  const row = readRow(table, content);
  await checkRow(write, table, row);
  const added = await insertRow(write, table, row);
  await followUp(write, table, row);
  return added;
}

/** What follows from a new row for other rows, in the same write. */
async function followUp(write: Write, table: TableName, row: object): Promise<void> {
  if (table === 'contenders') {
    await giveLetters(write);
    await chooseFirstReference(write, row as Row<'contenders'>);
  }
  if (table === 'machine_changes') await followFirmware(write, row as Row<'machine_changes'>);
}

/** The first contender is the reference until another is chosen. */
async function chooseFirstReference(write: Write, { contender_id }: Row<'contenders'>) {
  const record = await findStudy(write.db, write.studyId);
  if (record.reference !== null) return;
  await updateStudy(write, { reference: contender_id }, record.version);
}

/** Adds a row that a client sent: one action, one transaction. */
export const addRow = (
  app: App,
  studyId: string,
  table: TableName,
  content: unknown,
  who: string | null,
): Promise<Stored<TableName>> =>
  writeStudy(app.db, studyId, who, async (write) => {
    const sent: object = typeof content === 'object' && content !== null ? content : {};
    await checkPanelRow(write, table, sent);
    return insertChecked(write, table, await completed(write, table, content));
  });

/** What a client sent, with what only the write can know: a free number, a free sticker. */
async function completed(write: Write, table: TableName, content: unknown): Promise<unknown> {
  if (table === 'setup_steps') return nextStep(write, content);
  if (table !== 'specimens') return content;
  const sent = readRow('specimens', content);
  const [row] = await withStickers(write, [sent]);
  return row;
}

/**
 * A step of the set-up with a number that is free: two who write it down at once have a number each. The
 * step that is sent again is found by what it says.
 */
async function nextStep(write: Write, content: unknown): Promise<object> {
  const sent = readRow('setup_steps', content);
  const { db, studyId } = write;
  const rows = await listRowsBy(db, studyId, 'setup_steps', 'machine_id', sent.machine_id);
  const said = ({ row_version: _, step: __, ...row }: Stored<'setup_steps'>) => JSON.stringify(row);
  const again = rows.find((row) => said(row) === said({ ...sent, row_version: 1 }));
  if (again && again.at !== null) return { ...sent, step: again.step };
  const isTaken = rows.some((row) => row.step === sent.step);
  return isTaken ? { ...sent, step: 1 + Math.max(...rows.map((row) => row.step)) } : sent;
}

/** Changes some columns of a row, once the row as it would be is checked. */
export async function changeRow(
  app: App,
  studyId: string,
  table: TableName,
  key: RowKey,
  change: object,
  version: number,
  who: string | null,
): Promise<Stored<TableName>> {
  const { row, key: keyColumns } = tableSpec(table);
  const checked = row.partial().strict().parse(change);
  // A column that is not sent stays as it is: defaults are for new rows.
  const sent = Object.fromEntries(
    Object.entries(checked).filter(([column]) => Object.hasOwn(change, column)),
  );
  for (const column of keyColumns) {
    if (column in sent && sent[column] !== asColumns(key)[column]) {
      throw new RequestError(422, `${column} names the row and cannot be changed.`);
    }
  }
  const changed = await writeStudy(app.db, studyId, who, async (write) => {
    const { row_version: _, ...before } = await findRow(write.db, studyId, table, key);
    await checkPanelRow(write, table, key);
    // Whoever stands at the machine ends a print, whoever began it.
    const isRunning = 'ended_at' in before && before.ended_at === null;
    if (!isRunning) await checkOwn(write, table, key);
    await checkRow(write, table, { ...before, ...sent } as Row<TableName>);
    if (table === 'prints') {
      await moveIncidents(write, before as Row<'prints'>, sent);
      if ('noise_db' in sent || 'noise_distance_m' in sent) {
        await noteLevel(write, { ...before, ...sent } as Row<'prints'>);
      }
    }
    return updateRow(write, table, key, sent as Partial<Row<TableName>>, version);
  });
  // Sliced files are read against their machine's claim: another one is read against anew.
  if (table === 'machines' || table === 'contenders') afterwards(app, () => queueUnread(app));
  return changed;
}

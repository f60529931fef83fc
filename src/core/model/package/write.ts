import { columnsOf, TABLE_NAMES, tableSpec, type Study, type TableName, asColumns } from '../study';
import { writeCsv } from './csv';
import { buildDescriptor, DESCRIPTOR } from './descriptor';
import { HISTORY, writeHistory, type HistoryEntry } from './history';

/** A row, with columns that the program does not know. */
interface WrittenRow {
  extras?: Record<string, string> | undefined;
}

/**
 * The text files of a study package: the descriptor and a CSV of every table that has rows or was
 * there before, rows in the order of their ids, and the history of its changes. The files that the
 * tables name are not among them.
 */
export function writePackage(
  study: Study,
  extras: Record<string, unknown> = {},
  history: readonly HistoryEntry[] = [],
): Map<string, string> {
  const files = new Map<string, string>();
  const listed: { name: TableName; extraColumns: string[] }[] = [];
  for (const name of TABLE_NAMES) {
    const rows: readonly WrittenRow[] = study.tables[name];
    if (rows.length === 0 && !study.present.has(name) && !tableSpec(name).required) continue;
    const extraColumns = [...new Set(rows.flatMap((row) => Object.keys(row.extras ?? {})))].sort();
    const columns = columnsOf(name).map((column) => column.name);
    files.set(
      `${name}.csv`,
      writeCsv(
        [...columns, ...extraColumns],
        sortById(name, rows).map((row) => [
          ...columns.map((column) => asColumns(row)[column] ?? null),
          ...extraColumns.map((column) => row.extras?.[column] ?? null),
        ]),
      ),
    );
    listed.push({ name, extraColumns });
  }
  if (history.length > 0) files.set(HISTORY, writeHistory(history));
  const descriptor = buildDescriptor(study.meta, listed, extras, history.length > 0);
  files.set(DESCRIPTOR, `${JSON.stringify(descriptor, null, 2)}\n`);
  return files;
}

/**
 * What a study's package still lacks before it can be read in again, as the tables are called:
 * those that every study needs and that have no row yet.
 */
export const lackingIn = ({ tables }: Study): string[] =>
  TABLE_NAMES.filter((name) => tableSpec(name).required && tables[name].length === 0).map(
    (name) => tableSpec(name).title,
  );

/** Rows in the order of their keys; of equal keys (superseded readings), the earlier first. */
function sortById(name: TableName, rows: readonly WrittenRow[]): WrittenRow[] {
  const key = [...tableSpec(name).key, ...(name === 'readings' ? ['superseded_at', 'at'] : [])];
  return [...rows].sort((one, other) => {
    const [a, b] = [asColumns(one), asColumns(other)];
    for (const column of key) {
      const order = compare(a[column] ?? null, b[column] ?? null);
      if (order !== 0) return order;
    }
    return 0;
  });
}

function compare(a: string | number | null, b: string | number | null): number {
  if (a === b) return 0;
  if (a === null) return 1;
  if (b === null) return -1;
  return a < b ? -1 : 1;
}

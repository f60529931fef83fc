import * as z from 'zod';
import { isIsoTime, plainValue, quote } from '../study';
import { readCsv, writeCsv } from './csv';
import type { FaultList } from './fault';

/** The file in which a study's history travels. */
export const HISTORY = 'history.csv';

/** A change of a row: how it stood before and after; null for not there. */
export interface HistoryEntry {
  table_name: string;
  row_key: Record<string, unknown>;
  before: Record<string, unknown> | null;
  after: Record<string, unknown> | null;
  who: string | null;
  /** ISO 8601. */
  at: string;
}

const COLUMNS = ['at', 'who', 'table', 'key', 'before', 'after'] as const;

const objectSchema = z.record(z.string(), z.unknown());

/** Reads a history; what is wrong is added to `faults`. */
export function readHistory(bytes: Uint8Array, faults: FaultList): HistoryEntry[] {
  const table = readCsv(HISTORY, bytes, faults);
  if (!table) return [];
  faults.setHeader(HISTORY, table.header);
  if (table.header.join() !== COLUMNS.join()) {
    faults.add(HISTORY, 1, '-', `must have the columns ${COLUMNS.join(', ')}`);
    return [];
  }
  return table.rows.flatMap(({ line, cells }): HistoryEntry[] => {
    const [at = '', who = '', table_name = '', key = '', before = '', after = ''] = cells;
    const fault = (column: string, message: string) => faults.add(HISTORY, line, column, message);
    if (cells.length !== COLUMNS.length) {
      fault('-', `has ${cells.length} cells, but the header has ${COLUMNS.length}`);
      return [];
    }
    if (!isIsoTime(at)) fault('at', `${quote(at)} is not a time with offset`);
    if (!/^[a-z_]{1,63}$/.test(table_name)) fault('table', `${quote(table_name)} names no table`);
    const objectOf = (column: string, text: string) => {
      const read = objectSchema.safeParse(jsonOf(text));
      if (!read.success) fault(column, `${quote(text)} is not a JSON object`);
      return read.data ?? {};
    };
    return [
      {
        ...{ at, table_name, who: who === '' ? null : who },
        row_key: objectOf('key', key),
        before: before === '' ? null : objectOf('before', before),
        after: after === '' ? null : objectOf('after', after),
      },
    ].map(plainValue);
  });
}

function jsonOf(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    return undefined;
  }
}

/** A history as the text of its file. */
export const writeHistory = (entries: readonly HistoryEntry[]): string =>
  writeCsv(
    COLUMNS,
    entries.map(({ at, who, table_name, row_key, before, after }) => [
      ...[at, who, table_name, JSON.stringify(row_key)],
      ...[before, after].map((value) => (value === null ? null : JSON.stringify(value))),
    ]),
  );

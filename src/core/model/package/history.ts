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
  /** As they called themselves at the bench. */
  who: string | null;
  /** Who was signed in; null where nobody had to be. */
  person: string | null;
  /** ISO 8601. */
  at: string;
}

const COLUMNS = ['at', 'who', 'person', 'table', 'key', 'before', 'after'] as const;
/** Histories from before people signed in do not name them. */
const WITHOUT_PERSON: readonly string[] = COLUMNS.filter((column) => column !== 'person');
/** More of a name than this is none. */
const LONGEST_NAME = 200;

const objectSchema = z.record(z.string(), z.unknown());

/** Reads a history; what is wrong is added to `faults`. */
export function readHistory(bytes: Uint8Array, faults: FaultList): HistoryEntry[] {
  const table = readCsv(HISTORY, bytes, faults);
  if (!table) return [];
  faults.setHeader(HISTORY, table.header);
  const header = [COLUMNS, WITHOUT_PERSON].find((one) => one.join() === table.header.join());
  if (!header) {
    faults.add(HISTORY, 1, '-', `must have the columns ${COLUMNS.join(', ')}`);
    return [];
  }
  return table.rows.flatMap(({ line, cells }): HistoryEntry[] => {
    const fault = (column: string, message: string) => faults.add(HISTORY, line, column, message);
    if (cells.length !== header.length) {
      fault('-', `has ${cells.length} cells, but the header has ${header.length}`);
      return [];
    }
    const cell = (column: (typeof COLUMNS)[number]) => cells[header.indexOf(column)] ?? '';
    const [at, who, person, table_name] = [cell('at'), cell('who'), cell('person'), cell('table')];
    if (!isIsoTime(at)) fault('at', `${quote(at)} is not a time with offset`);
    if (!/^[a-z_]{1,63}$/.test(table_name)) fault('table', `${quote(table_name)} names no table`);
    if (person.length > LONGEST_NAME) fault('person', `is longer than ${LONGEST_NAME} characters`);
    const objectOf = (column: (typeof COLUMNS)[number]) => {
      const text = cell(column);
      const read = objectSchema.safeParse(jsonOf(text));
      if (!read.success) fault(column, `${quote(text)} is not a JSON object`);
      return read.data ?? {};
    };
    return [
      {
        at,
        table_name,
        who: who === '' ? null : who,
        person: person === '' ? null : person,
        row_key: objectOf('key'),
        before: cell('before') === '' ? null : objectOf('before'),
        after: cell('after') === '' ? null : objectOf('after'),
      },
    ].map(plainValue);
  });
}

function jsonOf(text: string): unknown {
  try {
    const read: unknown = JSON.parse(text);
    return read;
  } catch {
    return undefined;
  }
}

/** A history as the text of its file. */
export const writeHistory = (entries: readonly HistoryEntry[]): string =>
  writeCsv(
    COLUMNS,
    entries.map(({ at, who, person, table_name, row_key, before, after }) => [
      at,
      who,
      person,
      table_name,
      JSON.stringify(row_key),
      ...[before, after].map((value) => (value === null ? null : JSON.stringify(value))),
    ]),
  );

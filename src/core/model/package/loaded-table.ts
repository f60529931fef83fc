import {
  columnsOf,
  isPlainText,
  tableSpec,
  type AnyRow,
  type Column,
  type TableName,
  quote,
  readCell,
} from '../study';
import { readCsv, type TextRow } from './csv';
import type { FaultList } from './fault';

/** A row as it was read; where it is faulty, the cells that could not be read are missing. */
export interface LoadedRow {
  line: number;
  /** Values by column; a faulty cell has no entry. */
  values: AnyRow;
  extras: Record<string, string> | null;
}

/** A table of a package as it was read. */
export interface LoadedTable {
  name: TableName;
  file: string;
  rows: LoadedRow[];
  /** Keys of all rows that could be told apart, faulty ones too. */
  keys: Set<string>;
  /** Whether references to this table can be judged. */
  usable: boolean;
}

/** The key of a row from its parts; a part that is not known is the empty text. */
export const keyOf = (parts: readonly (string | number | null | undefined)[]): string =>
  parts.join('\u0000');

/** Reads one table's file, its cells and the uniqueness of its keys. */
export function loadTable(
  name: TableName,
  file: string,
  bytes: Uint8Array,
  faults: FaultList,
): LoadedTable {
  const loaded: LoadedTable = { name, file, rows: [], keys: new Set(), usable: false };
  const text = readCsv(file, bytes, faults);
  if (!text) return loaded;
  const columns = columnsOf(name);
  faults.setHeader(file, text.header);
  checkHeader(file, text.header, columns, faults);
  const spec = tableSpec(name);
  const place = new Map(text.header.map((column, at) => [column, at]));
  const hasKey = spec.key.every(
    (column) => place.has(column) || !columns.find((c) => c.name === column)?.required,
  );
  loaded.usable = text.complete && hasKey;
  if (spec.required && text.rows.length === 0 && text.complete) {
    faults.add(file, 1, '-', `has no rows: a study needs at least one row of ${spec.title}`);
    loaded.usable = false;
  }
  const layout: Layout = {
    file,
    header: text.header,
    known: columns.flatMap((column) => {
      const at = place.get(column.name);
      return at === undefined ? [] : [{ name: column.name, at, read: cellReader(column) }];
    }),
    missing: columns.filter((column) => !place.has(column.name)).map((column) => column.name),
    extra: text.header.filter((column) => !columns.some((known) => known.name === column)),
    place,
    keyCells: spec.key.map((name) => {
      const column = columns.find((candidate) => candidate.name === name);
      return {
        at: place.get(name) ?? -1,
        isNumber: column?.cell === 'number' || column?.cell === 'whole',
        required: column?.required ?? true,
      };
    }),
    damaged: text.damaged,
  };
  const things = new Map<unknown, number>();
  // Each line is let go as soon as it is read: a table is never held twice.
  const rest = text.rows.reverse();
  for (let row = rest.pop(); row; row = rest.pop()) {
    const values = readRow(row, layout, faults);
    if (values) {
      loaded.rows.push(values);
      registerItem(loaded, values, things, faults);
    }
    registerKey(loaded, row, layout, values !== null, faults);
  }
  return loaded;
}

interface Layout {
  file: string;
  header: readonly string[];
  known: readonly { name: string; at: number; read: (text: string) => CellRead }[];
  missing: readonly string[];
  extra: readonly string[];
  place: ReadonlyMap<string, number>;
  keyCells: readonly { at: number; isNumber: boolean; required: boolean }[];
  damaged: boolean;
}

function checkHeader(
  file: string,
  header: readonly string[],
  columns: readonly Column[],
  faults: FaultList,
): void {
  const seen = new Set<string>();
  const twice = new Set<string>();
  header.forEach((name, at) => {
    if (name === '') faults.add(file, 1, '-', `column ${at + 1} has no name`);
    else if (!isPlainText(name)) {
      faults.add(file, 1, '-', `the name of column ${at + 1} holds a control character`);
    } else if (seen.has(name) && !twice.has(name)) {
      twice.add(name);
      faults.add(file, 1, name, `column ${quote(name)} is named twice`);
    } else if (!seen.has(name) && !columns.some((column) => column.name === name)) {
      const message = `unknown column ${quote(name)}: it is kept, and not used`;
      faults.warn(
        { file, line: 1, column: name, message },
        { ofSeveral: 'unknown columns are kept, and not used', subject: name },
      );
    }
    seen.add(name);
  });
  for (const column of columns) {
    if (column.required && !seen.has(column.name)) {
      faults.add(file, 1, column.name, `the required column ${quote(column.name)} is missing`);
    }
  }
}

type CellRead = ReturnType<typeof readCell>;

/** So many different texts of a column are remembered: the cells of a long table say little that is new. */
const REMEMBERED = 4096;

/** Reads the cells of a column, each text once. */
function cellReader(column: Column): (text: string) => CellRead {
  const known = new Map<string, CellRead>();
  return (text) => {
    const before = known.get(text);
    if (before) return before;
    const result = readCell(column, text);
    if (known.size === REMEMBERED) known.clear();
    known.set(text, result);
    return result;
  };
}

function readRow(row: TextRow, layout: Layout, faults: FaultList): LoadedRow | null {
  const { file, header } = layout;
  if (row.cells.length !== header.length) {
    const shown = quote(row.cells.join(','));
    faults.add(
      file,
      row.line,
      '-',
      `${shown} has ${cells(row.cells.length)}, but the header has ${cells(header.length)}`,
    );
    return null;
  }
  const values: AnyRow = {};
  for (const { name, at, read } of layout.known) {
    const text = row.cells[at] ?? '';
    if (layout.damaged && text.includes('\uFFFD')) continue;
    const result = read(text);
    if ('fault' in result) faults.add(file, row.line, name, result.fault);
    else values[name] = result.value;
  }
  for (const name of layout.missing) values[name] = null;
  let extras: Record<string, string> | null = null;
  for (const name of layout.extra) {
    const text = row.cells[layout.place.get(name) ?? -1] ?? '';
    if (!isPlainText(text)) {
      faults.add(file, row.line, name, `${quote(text)} holds a control character: take it out`);
    } else if (text !== '') (extras ??= {})[name] = text;
  }
  return { line: row.line, values, extras };
}

function registerKey(
  loaded: LoadedTable,
  row: TextRow,
  layout: Layout,
  isWhole: boolean,
  faults: FaultList,
): void {
  if (layout.keyCells.length === 0) return;
  const superseded = layout.place.get('superseded_at');
  if (superseded !== undefined && (row.cells[superseded] ?? '') !== '') return;
  const parts: (string | number)[] = [];
  for (const { at, isNumber, required } of layout.keyCells) {
    const text = row.cells[at] ?? '';
    if (text === '' && required) return;
    const isReadable = isNumber && text.trim() !== '' && Number.isFinite(Number(text));
    parts.push(isReadable ? Number(text) : text);
  }
  const key = keyOf(parts);
  if (isWhole && loaded.keys.has(key)) {
    const names = tableSpec(loaded.name).key;
    faults.add(
      loaded.file,
      row.line,
      names.length === 1 ? (names[0] ?? '-') : '-',
      `${parts.map((part) => quote(String(part))).join(', ')} appears twice: ${names.join(', ')} must be unique`,
    );
  }
  loaded.keys.add(key);
}

/** Two rows of a study are two things: a lasting id stands once. */
function registerItem(
  { file }: LoadedTable,
  { line, values }: LoadedRow,
  things: Map<unknown, number>,
  faults: FaultList,
): void {
  if (typeof values.uid !== 'string') return;
  const uid = values.uid.toLowerCase();
  const before = things.get(uid);
  if (before === undefined) things.set(uid, line);
  else
    faults.add(
      file,
      line,
      'uid',
      `${quote(values.uid)} is the thing of line ${before} already: two rows are two things`,
    );
}

const cells = (count: number): string => (count === 1 ? '1 cell' : `${count} cells`);

import { columnsOf } from './columns';
import { tablesOf } from './any-row';
import type { Study } from './study';
import type { TableName } from './tables';

/**
 * A study on its way from where it is stored to where it is computed: its tables as the texts that a
 * database copies out. Hundreds of thousands of rows are passed on so without being looked at.
 */
export interface SentStudy extends Omit<Study, 'tables'> {
  /** Tables of the study as UTF-8, each row behind its place among them; those that are not here are empty. */
  texts: Partial<Record<TableName, Uint8Array>>;
}

/** A column while its text is read: what the row before has said of it. */
interface ReadColumn {
  name: string;
  cell: string;
  /** What ends its text. */
  end: string;
  said: string;
  value: unknown;
}

/** The columns of a table in the order in which its text has them. */
export const sentColumns = (table: TableName): string[] => [
  ...columnsOf(table).map((column) => column.name),
  'extras',
];

const ESCAPES: Readonly<Record<string, string>> = {
  '\\': '\\\\',
  '\t': '\\t',
  '\n': '\\n',
  '\r': '\\r',
};

const SIGNS: Readonly<Record<string, string>> = {
  t: '\t',
  n: '\n',
  r: '\r',
  b: '\b',
  f: '\f',
  v: '\v',
};

/** A cell as text: nothing is `\N`, signs that part cells and rows are escaped, objects are JSON. */
export function cellText(value: unknown): string {
  if (value === null || value === undefined) return '\\N';
  if (typeof value === 'number' || typeof value === 'boolean') return String(value);
  const text = typeof value === 'string' ? value : JSON.stringify(value);
  return /[\\\t\n\r]/.test(text)
    ? text.replace(/[\\\t\n\r]/g, (sign) => ESCAPES[sign] ?? '')
    : text;
}

/** The text of a cell that is something. */
const plainText = (cell: string): string =>
  cell.includes('\\') ? cell.replace(/\\(.)/gs, (_, sign: string) => SIGNS[sign] ?? sign) : cell;

/**
 * The rows of a table from its text, by their places. A database gives them as they lie: to order what is in
 * order already would take it a third of the time.
 */
export function rowsOfText(table: TableName, bytes: Uint8Array): object[] {
  const text = new TextDecoder().decode(bytes);
  // Neighbours mostly say the same: what the row before has said is kept, and not read again.
  const columns = [...columnsOf(table), { name: 'extras', cell: 'json' }].map(
    ({ name, cell }, at, all): ReadColumn => ({
      name,
      cell,
      end: at === all.length - 1 ? '\n' : '\t',
      said: '\\N\t',
      value: null,
    }),
  );
  const rows: object[] = [];
  const places: number[] = [];
  let isInOrder = true;
  for (let at = 0; at < text.length;) {
    const start = text.indexOf('\t', at);
    const place = Number(text.slice(at, start));
    isInOrder &&= place >= (places.at(-1) ?? -Infinity);
    places.push(place);
    at = start + 1;
    const row: Record<string, unknown> = {};
    for (const column of columns) {
      if (!text.startsWith(column.said, at)) {
        column.said = text.slice(at, text.indexOf(column.end, at) + 1);
        column.value = valueOf(column.said.slice(0, -1), column.cell);
      }
      at += column.said.length;
      if (column.cell !== 'json' || column.value !== null) row[column.name] = column.value;
    }
    rows.push(row);
  }
  return isInOrder ? rows : inOrder(rows, places);
}

const inOrder = (rows: readonly object[], places: readonly number[]): object[] =>
  [...rows.keys()].sort((a, b) => (places[a] ?? 0) - (places[b] ?? 0)).map((at) => rows[at] ?? {});

function valueOf(text: string, cell: string): unknown {
  if (text === '\\N') return null;
  if (cell === 'number' || cell === 'whole') return Number(text);
  return cell === 'json' ? JSON.parse(plainText(text)) : plainText(text);
}

/** A study that was sent, with its rows. */
export function openSentStudy({ texts, ...rest }: SentStudy): Study {
  const tables = tablesOf((name) => {
    const bytes = texts[name];
    return bytes ? rowsOfText(name, bytes) : [];
  });
  return { ...rest, tables };
}

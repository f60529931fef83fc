import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type pg from 'pg';
import { from as copyFrom } from 'pg-copy-streams';
import type { Database } from './database';

/** What a piece that is sent holds at least, as long as there are rows. */
const PIECE = 1 << 16;

/**
 * Puts rows into a table by PostgreSQL's COPY, which is quickest for many. Within a transaction.
 *
 * @param columns the table's columns that the cells of each row are of
 * @param rows cells: texts, finite numbers, truth values, null, or what is kept as JSON
 * @throws the driver's error where the database does not take them; nothing is put in then
 */
export async function copyRows(
  db: Database,
  table: string,
  columns: readonly string[],
  rows: Iterable<readonly unknown[]>,
): Promise<void> {
  const { connection } = db.transaction as unknown as { connection: pg.Client };
  const list = columns.map((column) => `"${column}"`).join(', ');
  const sink = connection.query(copyFrom(`copy "${table}" (${list}) from stdin`));
  await pipeline(Readable.from(pieces(rows)), sink);
}

/** Rows as the text format of COPY, in pieces. */
function* pieces(rows: Iterable<readonly unknown[]>): Generator<Buffer> {
  let piece = '';
  for (const row of rows) {
    for (let at = 0; at < row.length; at += 1) {
      if (at > 0) piece += '\t';
      piece += cellOf(row[at]);
    }
    piece += '\n';
    if (piece.length < PIECE) continue;
    yield Buffer.from(piece);
    piece = '';
  }
  if (piece !== '') yield Buffer.from(piece);
}

const ESCAPES: Readonly<Record<string, string>> = {
  '\\': '\\\\',
  '\t': '\\t',
  '\n': '\\n',
  '\r': '\\r',
};

function cellOf(value: unknown): string {
  if (value === null || value === undefined) return '\\N';
  if (typeof value === 'number' || typeof value === 'boolean') return String(value);
  const text = typeof value === 'string' ? value : JSON.stringify(value);
  return /[\\\t\n\r]/.test(text)
    ? text.replace(/[\\\t\n\r]/g, (sign) => ESCAPES[sign] ?? '')
    : text;
}

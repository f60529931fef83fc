import * as z from 'zod';
import { Readable } from 'node:stream';
import { buffer } from 'node:stream/consumers';
import { pipeline } from 'node:stream/promises';
import type pg from 'pg';
import { from as copyFrom, to as copyTo } from 'pg-copy-streams';
import { cellText } from '../core/model/study';
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
  const sink = clientOf(db).query(copyFrom(`copy "${table}" (${listOf(columns)}) from stdin`));
  await pipeline(Readable.from(pieces(rows)), sink);
}

/**
 * The rows of a study's table as the text that COPY gives, as they lie: each behind its place in the order in
 * which they came. Within a transaction.
 */
export async function copyOut(
  db: Database,
  table: string,
  columns: readonly string[],
  studyId: string,
): Promise<Uint8Array> {
  const rows = `select ordinal, ${listOf(columns)} from "${table}" where study_id = ${db.sequelize.escape(studyId)}`;
  return buffer(clientOf(db).query(copyTo(`copy (${rows}) to stdout`)));
}

const transactionSchema = z.object({
  connection: z.custom<pg.Client>((found) => Object(found) === found, 'rows are copied within one'),
});

/** The driver's connection of a transaction, which Sequelize keeps and does not tell of. */
function clientOf({ transaction }: Database): pg.Client {
  return transactionSchema.parse(transaction).connection;
}

const listOf = (columns: readonly string[]): string =>
  columns.map((column) => `"${column}"`).join(', ');

/** Rows as the text format of COPY, in pieces. */
function* pieces(rows: Iterable<readonly unknown[]>): Generator<Buffer> {
  let piece = '';
  for (const row of rows) {
    for (let at = 0; at < row.length; at += 1) {
      if (at > 0) piece += '\t';
      piece += cellText(row[at]);
    }
    piece += '\n';
    if (piece.length < PIECE) continue;
    yield Buffer.from(piece);
    piece = '';
  }
  if (piece !== '') yield Buffer.from(piece);
}

import * as z from 'zod';
import { v7 as uuid } from 'uuid';
import type { HistoryEntry } from '../../core/model/package';
import {
  sentColumns,
  TABLE_NAMES,
  withOwnCodes,
  type RenamedCode,
  type Study,
  type TableName,
  rowsAsColumns,
} from '../../core/model/study';
import { copyRows } from '../bulk';
import { logChange } from './changes';
import { tieRows } from './ties';
import { fillFreely, lookUpReferences } from '../references';
import { asJson, execute, query, someRow, within, type Database } from '../database';

/** Changes that are sent to the database in one statement. */
const BATCH = 20_000;

/** So many rows of a table are worth the way for many of them. */
const MANY = 1000;

/** What is in a table is counted anew where more rows have come than this, and than this share of those before. */
const COUNTED = { rows: 50, share: 0.1 };

/** A study that comes from elsewhere, whole. */
export interface IncomingStudy {
  study: Study;
  packageExtras: Record<string, unknown>;
  /** The files that came with it, by path: content that is stored already. */
  files: ReadonlyMap<string, string>;
  /** How its rows came to be what they are, the oldest first. */
  history: readonly HistoryEntry[];
}

/**
 * Stores a whole study under a new id, within a transaction. A sticker is on one part only: of parts with one code
 * the later ones get another.
 *
 * @returns the parts that got another code
 */
export async function storeStudy(
  db: Database,
  studyId: string,
  { study, packageExtras, files, history }: IncomingStudy,
): Promise<RenamedCode[]> {
  // The study names its reference before the contenders are there.
  await execute(db, 'set constraints all deferred');
  await db.studies.create(
    {
      study_id: studyId,
      ...study.meta,
      package_extras: packageExtras,
      present: [...study.present],
    },
    within(db),
  );
  const { specimens, renamed } = withOwnCodes(study.tables.specimens);
  const tables = { ...study.tables, specimens };
  const filled = TABLE_NAMES.filter((table) => tables[table].length > 0);
  const isLarge = filled.some((table) => tables[table].length >= MANY);
  const fill = (table: TableName) => insertRows(db, studyId, table, rowsAsColumns(tables[table]));
  const count = () => countAnew(db, new Map(filled.map((table) => [table, tables[table].length])));
  if (isLarge) {
    const free = await fillFreely(db, filled, fill);
    await count();
    await lookUpReferences(db, studyId, free);
  } else {
    // Few rows are looked up one by one sooner than their tables are prepared for many.
    for (const table of filled) await fill(table);
    await count();
  }
  const begun = Date.parse(study.meta.created ?? '');
  await tieRows(db, studyId, {
    knownAt: new Date(Number.isNaN(begun) ? Date.now() : begun),
    isKept: false,
  });
  const links = [...files].map(([path, sha256]) => ({ path, sha256 }));
  await execute(
    db,
    `insert into study_files (study_id, path, sha256)
     select $1::uuid, path, sha256 from jsonb_to_recordset($2::jsonb) as f(path text, sha256 text)`,
    [studyId, asJson(links)],
  );
  // Who brings a study in has made none of the changes that it tells of.
  for (let from = 0; from < history.length; from += BATCH) {
    await execute(
      db,
      `insert into changes (study_id, table_name, row_key, before, after, who, actor, person, at)
       select $1::uuid, table_name, row_key, before, after, who, null, person, at
       from jsonb_array_elements($2::jsonb) with ordinality as item(held, n),
         jsonb_to_record(held) as h(
           table_name text, row_key jsonb, before jsonb, after jsonb, who text, person text, at timestamptz
         )
       order by n`,
      [studyId, asJson(history.slice(from, from + BATCH))],
    );
  }
  for (const { specimen_id, before, after } of renamed) {
    await logChange(
      { db, studyId, who: 'import: this sticker was on two parts', touch: () => undefined },
      {
        table: 'specimens',
        key: { specimen_id },
        before: { code: before },
        after: { code: after },
      },
    );
  }
  return renamed;
}

const countAnewRow = z.strictObject({ name: z.enum(TABLE_NAMES), rows: z.number() });

/**
 * Has the database look at what is in tables now, where it is much more than before: by itself it does so a minute
 * later, and until then a plan for few rows takes minutes over many.
 *
 * @param come how many rows have come into each table
 */
async function countAnew(db: Database, come: ReadonlyMap<TableName, number>): Promise<void> {
  const known = await query(
    db,
    countAnewRow,
    `select name, greatest(reltuples, 0) as rows
     from unnest($1::text[]) as name join pg_class on oid = name::regclass`,
    [[...come.keys()]],
  );
  const tables = known
    .filter(({ name, rows }) => (come.get(name) ?? 0) > COUNTED.rows + COUNTED.share * rows)
    .map(({ name }) => name);
  if (tables.length === 0) return;
  // A rough count is enough for that.
  await execute(db, 'set local default_statistics_target = 10');
  await execute(db, `analyze ${tables.sort().join(', ')}`);
}

type Cells = Readonly<Record<string, unknown>>;

async function insertRows(
  db: Database,
  studyId: string,
  table: TableName,
  rows: readonly Cells[],
): Promise<void> {
  const isReadings = table === 'readings';
  const columns = sentColumns(table);
  const cells = function* () {
    for (const row of rows) {
      const own = columns.map((column) => row[column]);
      yield isReadings ? [studyId, uuid(), ...own] : [studyId, ...own];
    }
  };
  const first = isReadings ? ['study_id', 'reading_id'] : ['study_id'];
  await copyRows(db, table, [...first, ...columns], cells());
}

const findImportRow = z.strictObject({ study_id: z.string() });

/** The study that an import of this key made; null where there was none. */
export async function findImport(db: Database, key: string): Promise<string | null> {
  const [found] = await query(
    db,
    findImportRow,
    'select study_id from imports where import_key = $1',
    [key],
  );
  return found?.study_id ?? null;
}

/** Puts down which study an import has made, so that sending it again makes no second one. */
export const insertImport = (db: Database, key: string, studyId: string): Promise<void> =>
  execute(db, 'insert into imports (import_key, study_id) values ($1, $2)', [key, studyId]);

/** Has imports of one key follow one another, until the transaction ends. */
export const lockImport = (db: Database, key: string): Promise<void> =>
  execute(db, 'select pg_advisory_xact_lock(hashtextextended($1, 0))', [key]);

/** Whether any import was made whose key begins so. */
export async function hasImports(db: Database, prefix: string): Promise<boolean> {
  const found = await query(
    db,
    someRow,
    'select 1 from imports where starts_with(import_key, $1) limit 1',
    [prefix],
  );
  return found.length > 0;
}

import * as z from 'zod';
import { v7 as uuid } from 'uuid';
import {
  TABLE_NAMES,
  tableSpec,
  type Reference,
  type TableName,
  asColumns,
} from '../../core/model/study';
import { asJson, execute, query, someRow, type Database } from '../database';
import { NotFoundError, RefusedError } from '../errors';
import type { Write } from '../write';
import { logChange } from './changes';
import { refusing, type RowKey } from './rows';

/** What can be deleted together with everything that belongs to it, and restored. */
export const DELETABLE = ['prints', 'specimens', 'incidents', 'photos'] as const;
export type Deletable = (typeof DELETABLE)[number];

/** How long a deleted row can be restored. */
const KEPT_FOR = `interval '30 days'`;

/** A row as the database holds it, all of its columns. */
type HeldRow = Record<string, unknown> & { ordinal: number };
/** Rows by table, in the order in which tables name each other; and the files that only they named. */
interface Held {
  tables: { table: TableName; rows: HeldRow[] }[];
  files: { path: string; sha256: string }[];
  pictures: Record<string, unknown>[];
}

/** How many rows of a table go with a deletion. */
export interface DeletedCount {
  table: TableName;
  title: string;
  rows: number;
}

/** Something that was deleted from a study and can be restored. */
const deletionRow = z.strictObject({
  deletion_id: z.string(),
  study_id: z.string(),
  /** The study's title. */
  study: z.string(),
  table_name: z.enum(DELETABLE),
  /** What it was, in words: `Stair block, Gannet stock, repeat 2`. */
  title: z.string(),
  counts: z.custom<DeletedCount[]>(),
  at: z.string(),
  who: z.string().nullable(),
  days_left: z.number(),
});
export type Deletion = z.infer<typeof deletionRow>;

/** References that are followed: by an id, or by a whole key. Dimensions and zones are not deleted here. */
const isFollowed = (reference: Reference): boolean =>
  reference.scope === 'id' || reference.scope === 'key';

const columnsOf = (reference: Reference): readonly string[] =>
  reference.scope === 'id' ? [reference.column] : reference.columns;

const collectRow = z.strictObject({ row: z.custom<HeldRow>() });

/** A row with all rows that refer to it, directly or through other tables. Locks the rows that it finds. */
async function collect(write: Write, table: TableName, key: RowKey): Promise<Held['tables']> {
  const { db, studyId } = write;
  const found = new Map<TableName, Map<number, HeldRow>>();
  const add = (name: TableName, rows: readonly HeldRow[]): HeldRow[] => {
    const known = found.get(name) ?? new Map<number, HeldRow>();
    found.set(name, known);
    return rows.filter((row) => !known.has(row.ordinal) && known.set(row.ordinal, row));
  };
  const conditions = Object.keys(key).map((column, at) => `t."${column}" = $${at + 2}`);
  const first = await query(
    db,
    collectRow,
    `select to_jsonb(t) as row from ${table} t where study_id = $1 and ${conditions.join(' and ')} for update`,
    [studyId, ...Object.values(key)],
  );
  // A photo that is filed under no specimen yet is a picture among the study's files only.
  const isUnfiled = first.length === 0 && table === 'photos' && (await isPicture(write, key));
  if (first.length === 0 && !isUnfiled) {
    throw new NotFoundError(`There is no such row among the ${tableSpec(table).title}.`);
  }
  let fresh: [TableName, HeldRow[]][] = [
    [
      table,
      add(
        table,
        first.map(({ row }) => row),
      ),
    ],
  ];
  while (fresh.length > 0) {
    const next: [TableName, HeldRow[]][] = [];
    for (const [named, rows] of fresh) {
      for (const other of TABLE_NAMES) {
        for (const reference of tableSpec(other).references ?? []) {
          if (reference.table !== named || !isFollowed(reference)) continue;
          const columns = columnsOf(reference);
          const target = tableSpec(named).key.slice(-columns.length);
          const own = columns.map((column) => `t."${column}"`).join(', ');
          const keys = target.map((_, at) => `k->>${at}`).join(', ');
          const naming = await query(
            db,
            collectRow,
            `select to_jsonb(t) as row from ${other} t where study_id = $1
               and (${own}) in (select ${keys} from jsonb_array_elements($2::jsonb) as k)
             for update`,
            [studyId, asJson(rows.map((row) => target.map((column) => row[column])))],
          );
          const added = add(
            other,
            naming.map(({ row }) => row),
          );
          if (added.length > 0) next.push([other, added]);
        }
      }
    }
    fresh = next;
  }
  return TABLE_NAMES.flatMap((name) => {
    const rows = [...(found.get(name)?.values() ?? [])].sort((a, b) => a.ordinal - b.ordinal);
    return rows.length > 0 ? [{ table: name, rows }] : [];
  });
}

async function isPicture({ db, studyId }: Write, key: RowKey): Promise<boolean> {
  const { path } = asColumns(key);
  const found = await query(
    db,
    someRow,
    'select 1 from pictures where study_id = $1 and "path" = $2 for update',
    [studyId, path],
  );
  return found.length > 0;
}

const countsOf = (tables: Held['tables']): DeletedCount[] =>
  tables.map(({ table, rows }) => ({ table, title: tableSpec(table).title, rows: rows.length }));

/** What goes where a row is deleted, itself included; nothing is changed. @throws NotFoundError */
export const lookAtDeletion = async (
  write: Write,
  table: Deletable,
  key: RowKey,
): Promise<DeletedCount[]> => countsOf(await collect(write, table, key));

const filesOfRow = z.strictObject({ path: z.string(), sha256: z.string() });

const filesOfFound = z.strictObject({ row: z.record(z.string(), z.unknown()) });

/** The files of photos and incidents among some rows: they go and come with them. */
async function filesOf(
  { db, studyId }: Write,
  tables: Held['tables'],
  key: RowKey,
): Promise<Pick<Held, 'files' | 'pictures'>> {
  const named = tables
    .filter(({ table }) => table === 'photos' || table === 'incident_photos')
    .flatMap(({ rows }) => rows.map((row) => String(row.path)));
  const { path: own } = asColumns(key);
  const paths = typeof own === 'string' ? [...named, own] : named;
  if (paths.length === 0) return { files: [], pictures: [] };
  const files = await query(
    db,
    filesOfRow,
    'select "path", sha256 from study_files where study_id = $1 and "path" = any($2::text[])',
    [studyId, paths],
  );
  const pictures = await query(
    db,
    filesOfFound,
    'select to_jsonb(p) as row from pictures p where study_id = $1 and "path" = any($2::text[])',
    [studyId, paths],
  );
  return { files, pictures: pictures.map(({ row }) => row) };
}

/**
 * Deletes a row with everything that belongs to it. All of it can be restored for 30 days.
 *
 * @param title what it is, in words
 * @throws NotFoundError, RefusedError where something else still names a row of it
 */
export function deleteWhole(
  write: Write,
  { table, key, title }: { table: Deletable; key: RowKey; title: string },
): Promise<{ deletion_id: string; counts: DeletedCount[] }> {
  const { db, studyId, who } = write;
  return refusing(table, async () => {
    const tables = await collect(write, table, key);
    const held: Held = { tables, ...(await filesOf(write, tables, key)) };
    const deletion_id = uuid();
    const counts = countsOf(tables);
    await execute(
      db,
      `insert into deletions (deletion_id, study_id, table_name, row_key, title, counts, held, who)
       values ($1, $2, $3, $4, $5, $6, $7, $8)`,
      [deletion_id, studyId, table, asJson(key), title, asJson(counts), asJson(held), who],
    );
    await execute(
      db,
      `insert into deleted_files (deletion_id, "path", sha256)
       select $1, "path", sha256 from jsonb_to_recordset($2::jsonb) as f("path" text, sha256 text)`,
      [deletion_id, asJson(held.files)],
    );
    for (const { table: name, rows } of [...tables].reverse()) {
      await execute(db, `delete from ${name} where study_id = $1 and ordinal = any($2::bigint[])`, [
        studyId,
        rows.map((row) => row.ordinal),
      ]);
      write.touch(name);
    }
    await execute(db, 'delete from study_files where study_id = $1 and "path" = any($2::text[])', [
      studyId,
      held.files.map((file) => file.path),
    ]);
    await logWhole(write, tables, (row) => ({ before: row, after: null }));
    return { deletion_id, counts };
  });
}

/** Notes in the history what became of each row; readings have none of their own. */
async function logWhole(
  write: Write,
  tables: Held['tables'],
  sides: (row: object) => { before: object | null; after: object | null },
): Promise<void> {
  for (const { table, rows } of tables) {
    if (table === 'readings') continue;
    for (const row of rows) {
      const key = Object.fromEntries(tableSpec(table).key.map((name) => [name, row[name] ?? null]));
      const { study_id: _, ordinal: __, extras: ___, entered_by: ____, ...said } = row;
      await logChange(write, { table, key, ...sides(said) });
    }
  }
}

const restoreFilesRow = z.strictObject({ path: z.string() });

/** Puts files back under their names; a name that stands for another file by now is refused. */
async function restoreFiles({ db, studyId }: Write, files: Held['files']): Promise<void> {
  const from = 'jsonb_to_recordset($2::jsonb) as f("path" text, sha256 text)';
  const [taken] = await query(
    db,
    restoreFilesRow,
    `select f."path" from ${from} join study_files s on s.study_id = $1 and s."path" = f."path"
     where s.sha256 <> f.sha256 limit 1`,
    [studyId, asJson(files)],
  );
  if (taken) {
    throw new RefusedError(
      `It cannot be restored: there is another file called ${taken.path} by now. Rename or delete that first.`,
    );
  }
  await execute(
    db,
    `insert into study_files (study_id, "path", sha256)
     select $1, "path", sha256 from ${from} on conflict do nothing`,
    [studyId, asJson(files)],
  );
}

const restoreWholeRow = z.strictObject({
  held: z.custom<Held>(),
  table_name: z.enum(TABLE_NAMES),
  restored: z.boolean(),
});

/**
 * Restores what was deleted, as it was. Restored again it stays as it is.
 *
 * @throws NotFoundError where its time is over, RefusedError where something else has taken its place
 */
export async function restoreWhole(write: Write, deletionId: string): Promise<DeletedCount[]> {
  const { db, studyId } = write;
  const [found] = await query(
    db,
    restoreWholeRow,
    `select held, table_name, restored_at is not null as restored from deletions
     where study_id = $1 and deletion_id = $2 for update`,
    [studyId, deletionId],
  );
  if (!found) throw new NotFoundError('It cannot be restored: its 30 days are over.');
  const { held } = found;
  if (found.restored) return countsOf(held.tables);
  await restoreFiles(write, held.files);
  // What was made of the pictures is made again.
  await execute(
    db,
    `insert into pictures (study_id, "path", name, told, state, taken_at)
     select $1, "path", name, told, 'waiting', taken_at
     from jsonb_to_recordset($2::jsonb) as p("path" text, name text, told json, taken_at text)
     on conflict do nothing`,
    [studyId, asJson(held.pictures)],
  );
  for (const { table, rows } of held.tables) {
    await refusing(table, () =>
      execute(
        db,
        `insert into ${table} overriding system value
         select * from jsonb_populate_recordset(null::${table}, $1::jsonb)`,
        [asJson(rows)],
      ),
    ).catch((error: unknown) => {
      if (!(error instanceof RefusedError)) throw error;
      throw new RefusedError(
        `It cannot be restored: one of the ${tableSpec(table).title} has the same name or sticker ` +
          'by now, or what it belongs to is gone. Rename or restore that first.',
      );
    });
    write.touch(table);
  }
  await execute(db, 'update deletions set restored_at = now() where deletion_id = $1', [
    deletionId,
  ]);
  await execute(db, 'delete from deleted_files where deletion_id = $1', [deletionId]);
  await logWhole(write, held.tables, (row) => ({ before: null, after: row }));
  return countsOf(held.tables);
}

/** What was deleted from studies that are there and can be restored, the latest first. @param studyId null: of all */
export const listDeletions = (db: Database, studyId: string | null): Promise<Deletion[]> =>
  query(
    db,
    deletionRow,
    `select d.deletion_id, d.study_id, s.title as study, d.table_name, d.title, d.counts, d.at::text, d.who,
       greatest(0, floor(extract(epoch from d.at + ${KEPT_FOR} - now()) / 86400))::int as days_left
     from deletions d join studies s using (study_id)
     where s.deleted_at is null and d.restored_at is null and ($1::uuid is null or d.study_id = $1::uuid)
     order by d.at desc limit 500`,
    [studyId],
  );

/** Removes for good what was deleted from studies over 30 days ago. */
export const forgetDeletions = (db: Database): Promise<void> =>
  execute(db, `delete from deletions where at < now() - ${KEPT_FOR}`);

import * as z from 'zod';
import { createHash } from 'node:crypto';
import { Readable } from 'node:stream';
import { v7 as uuid } from 'uuid';
import { execute, query, someRow, type Database } from '../database';
import { RefusedError } from '../errors';
import { transact, type Write } from '../write';

export const CHUNK_BYTES = 1024 * 1024;

/** A file of a study: where it lies in the package, and what it holds. */
const studyFileRow = z.strictObject({ path: z.string(), sha256: z.string(), bytes: z.number() });
export type StudyFile = z.infer<typeof studyFileRow>;

type Content = AsyncIterable<Uint8Array> | Iterable<Uint8Array>;

/** Puts a stream into chunks of one size. */
export async function* inChunks(stream: Content): AsyncGenerator<Buffer> {
  let parts: Uint8Array[] = [];
  let held = 0;
  for await (const part of stream) {
    let rest = part;
    while (held + rest.length >= CHUNK_BYTES) {
      const head = rest.subarray(0, CHUNK_BYTES - held);
      yield Buffer.concat([...parts, head]);
      rest = rest.subarray(head.length);
      parts = [];
      held = 0;
    }
    if (rest.length > 0) parts.push(rest);
    held += rest.length;
  }
  if (held > 0) yield Buffer.concat(parts);
}

/**
 * Stores content by its SHA-256: the same content is stored once. Memory does not grow with it, and
 * nothing of it is there until all of it is. What no file names is dropped after a day.
 *
 * @returns its SHA-256
 */
export async function storeContent(db: Database, content: Content): Promise<string> {
  const draft = `draft-${uuid()}`;
  const hash = createHash('sha256');
  let bytes = 0;
  let sequence = 0;
  await execute(db, 'insert into stored_files (sha256, bytes) values ($1, 0)', [draft]);
  try {
    for await (const chunk of inChunks(content)) {
      hash.update(chunk);
      bytes += chunk.length;
      await execute(db, 'insert into file_chunks (sha256, sequence, data) values ($1, $2, $3)', [
        draft,
        sequence,
        chunk,
      ]);
      sequence += 1;
    }
    const sha256 = hash.digest('hex');
    await transact(db, (bound) => settleDraft(bound, draft, sha256, bytes));
    return sha256;
  } catch (error) {
    // Within a transaction its end takes the draft away.
    if (!db.transaction) await execute(db, 'delete from stored_files where sha256 = $1', [draft]);
    throw error;
  }
}

/** Makes the chunks of a draft the content of its hash, or drops them where that is there already. */
export async function settleDraft(
  db: Database,
  draft: string,
  sha256: string,
  bytes: number,
): Promise<void> {
  const isNew = await query(
    db,
    someRow,
    `insert into stored_files (sha256, bytes) values ($1, $2)
     on conflict (sha256) do nothing returning sha256`,
    [sha256, bytes],
  );
  if (isNew.length > 0) {
    await execute(db, 'update file_chunks set sha256 = $1 where sha256 = $2', [sha256, draft]);
  } else {
    await execute(db, 'update stored_files set stored_at = now() where sha256 = $1', [sha256]);
  }
  await execute(db, 'delete from stored_files where sha256 = $1', [draft]);
}

const storeSmallContentsRow = z.strictObject({ sha256: z.string(), is_new: z.boolean() });

/** Stores many small contents in one go; none longer than a chunk. Returns their hashes in order. */
export async function storeSmallContents(
  db: Database,
  contents: readonly Buffer[],
): Promise<string[]> {
  const hashes = contents.map((content) => createHash('sha256').update(content).digest('hex'));
  const own = new Map(hashes.map((sha256, at) => [sha256, contents[at] ?? Buffer.alloc(0)]));
  // In one order everywhere, so that two imports of the same files do not wait for each other.
  const list = [...own].sort(([a], [b]) => (a < b ? -1 : 1));
  await transact(db, async (bound) => {
    const stored = await query(
      bound,
      storeSmallContentsRow,
      `insert into stored_files (sha256, bytes)
       select sha256, bytes from jsonb_to_recordset($1::jsonb) as f(sha256 text, bytes bigint)
       on conflict (sha256) do update set stored_at = now() returning sha256, (xmax = 0) as is_new`,
      [JSON.stringify(list.map(([sha256, data]) => ({ sha256, bytes: data.length })))],
    );
    for (const { sha256, is_new } of stored) {
      const data = own.get(sha256);
      if (!is_new || data === undefined || data.length === 0) continue;
      await execute(
        bound,
        'insert into file_chunks (sha256, sequence, data) values ($1, 0, $2) on conflict do nothing',
        [sha256, data],
      );
    }
  });
  return hashes;
}

/** What to do where a study has a file of that path already, with other content. */
export type IfTaken = 'refuse' | 'replace';

const linkFileRow = z.strictObject({ sha256: z.string() });

/**
 * Makes stored content a file of the study. A path that another content has is never silently taken.
 *
 * @throws RefusedError where the path is taken and is not to be replaced
 */
export async function linkFile(
  { db, studyId }: Pick<Write, 'db' | 'studyId'>,
  path: string,
  sha256: string,
  ifTaken: IfTaken = 'refuse',
): Promise<void> {
  const [linked] = await query(
    db,
    linkFileRow,
    `insert into study_files (study_id, path, sha256) values ($1, $2, $3)
     on conflict (study_id, path) do update
       set sha256 = ${ifTaken === 'replace' ? 'excluded.sha256' : 'study_files.sha256'}
     returning sha256`,
    [studyId, path, sha256],
  );
  if (linked?.sha256 !== sha256) {
    throw new RefusedError(`There is another file ${path} in this study already.`);
  }
}

const freePathRow = z.strictObject({ path: z.string() });

/** A path in the study for a name that no file has yet; within a write it stays free until its end. */
export async function freePath(
  { db, studyId }: Pick<Write, 'db' | 'studyId'>,
  folder: string,
  stem: string,
  ending: string,
): Promise<string> {
  const rows = await query(
    db,
    freePathRow,
    'select lower(path) as path from study_files where study_id = $1 and path like $2',
    [studyId, `${folder}/%`],
  );
  const taken = new Set(rows.map((row) => row.path));
  for (let count = 1; ; count += 1) {
    const path = `${folder}/${stem}${count > 1 ? `-${count}` : ''}${ending}`;
    if (!taken.has(path.toLowerCase())) return path;
  }
}

const FILES = `select path, sha256, bytes::float8 as bytes
  from study_files join stored_files using (sha256)`;

/** The files of a study, by path. */
export const listFiles = (db: Database, studyId: string): Promise<StudyFile[]> =>
  query(db, studyFileRow, `${FILES} where study_id = $1 order by path`, [studyId]);

/** The file of a study at a path; null where there is none. */
export async function findFile(
  db: Database,
  studyId: string,
  path: string,
): Promise<StudyFile | null> {
  const [found] = await query(db, studyFileRow, `${FILES} where study_id = $1 and path = $2`, [
    studyId,
    path,
  ]);
  return found ?? null;
}

const readFileRow = z.strictObject({ data: z.instanceof(Buffer) });

/** Streams what a stored file holds, a chunk at a time. */
export function readFile(db: Database, sha256: string): Readable {
  const chunks = async function* () {
    for (let sequence = 0; ; sequence += 1) {
      const [chunk] = await query(
        db,
        readFileRow,
        'select data from file_chunks where sha256 = $1 and sequence = $2',
        [sha256, sequence],
      );
      if (!chunk) return;
      yield chunk.data;
    }
  };
  return Readable.from(chunks(), { objectMode: false });
}

/** Drops content that has been named by nothing for a day: of deleted files, of imports that broke off. */
export const dropUnnamedContent = (db: Database): Promise<void> =>
  execute(
    db,
    `delete from stored_files s where s.stored_at < now() - interval '1 day'
       and not exists (select 1 from study_files f where f.sha256 = s.sha256)
       and not exists (select 1 from sliced_files f where f.sha256 = s.sha256)
       and not exists (select 1 from picture_parts p where p.sha256 = s.sha256)
       and not exists (select 1 from panel_items i where i.sha256 = s.sha256)
       and not exists (select 1 from report_files r where r.sha256 = s.sha256)
       and not exists (select 1 from deleted_files d where d.sha256 = s.sha256)
       and not exists (select 1 from uploads u where u.draft = s.sha256)`,
  );

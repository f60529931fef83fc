import { createHash } from 'node:crypto';
import { Readable } from 'node:stream';
import type { Transaction } from 'sequelize';
import { v7 as uuid } from 'uuid';
import { execute, select, type Database } from '../database';

export const CHUNK_BYTES = 1024 * 1024;

/** A file of a study: where it lies in the package, and what it holds. */
export interface StudyFile {
  path: string;
  sha256: string;
  bytes: number;
}

/** Puts a stream into chunks of one size. */
export async function* inChunks(
  stream: AsyncIterable<Uint8Array> | Iterable<Uint8Array>,
): AsyncGenerator<Buffer> {
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
 * Keeps a file by what it holds: the same content is stored once. Memory does not grow with it.
 *
 * @returns its SHA-256
 */
export async function storeFile(
  db: Database,
  studyId: string,
  path: string,
  content: AsyncIterable<Uint8Array> | Iterable<Uint8Array>,
  transaction: Transaction,
): Promise<string> {
  const draft = `draft-${uuid()}`;
  const hash = createHash('sha256');
  let bytes = 0;
  let sequence = 0;
  const run = (sql: string, bind: unknown[]) => execute(db, sql, bind, transaction);
  await run('insert into stored_files (sha256, bytes) values ($1, 0)', [draft]);
  for await (const chunk of inChunks(content)) {
    hash.update(chunk);
    bytes += chunk.length;
    await run('insert into file_chunks (sha256, sequence, data) values ($1, $2, $3)', [
      draft,
      sequence,
      chunk,
    ]);
    sequence += 1;
  }
  const sha256 = hash.digest('hex');
  const isNew = await select(
    db,
    'insert into stored_files (sha256, bytes) values ($1, $2) on conflict do nothing returning sha256',
    [sha256, bytes],
    transaction,
  );
  if (isNew.length > 0) {
    await run('update file_chunks set sha256 = $1 where sha256 = $2', [sha256, draft]);
  }
  await run('delete from stored_files where sha256 = $1', [draft]);
  await run(
    `insert into study_files (study_id, path, sha256) values ($1, $2, $3)
     on conflict (study_id, path) do update set sha256 = excluded.sha256`,
    [studyId, path, sha256],
  );
  return sha256;
}

/** The files of a study, by path. */
export async function listFiles(db: Database, studyId: string): Promise<StudyFile[]> {
  const rows = await select<{ path: string; sha256: string; bytes: string }>(
    db,
    `select path, sha256, bytes from study_files join stored_files using (sha256)
     where study_id = $1 order by path`,
    [studyId],
  );
  return rows.map((row) => ({ ...row, bytes: Number(row.bytes) }));
}

/** Streams what a stored file holds, a chunk at a time. */
export function readFile(db: Database, sha256: string): Readable {
  const chunks = async function* () {
    for (let sequence = 0; ; sequence += 1) {
      const [chunk] = await select<{ data: Buffer }>(
        db,
        'select data from file_chunks where sha256 = $1 and sequence = $2',
        [sha256, sequence],
      );
      if (!chunk) return;
      yield chunk.data;
    }
  };
  return Readable.from(chunks(), { objectMode: false });
}

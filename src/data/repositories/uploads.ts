import { createHash } from 'node:crypto';
import { v7 as uuid } from 'uuid';
import { change, execute, select, type Database } from '../database';
import { NotFoundError, RefusedError } from '../errors';
import { CHUNK_BYTES, inChunks, readFile } from './files';

/** A file that is on its way: so much of it has arrived for good. */
export interface Upload {
  sha256: string;
  bytes: number;
  name: string;
  received: number;
}

interface UploadRow {
  sha256: string;
  bytes: string;
  name: string;
  draft: string;
  chunks: number;
  received: string;
}

async function findRow(db: Database, studyId: string, sha256: string): Promise<UploadRow | null> {
  const [row] = await select<UploadRow>(
    db,
    `select u.sha256, u.bytes, u.name, u.draft, count(c.sequence)::int as chunks,
       coalesce(sum(length(c.data)), 0)::text as received
     from uploads u left join file_chunks c on c.sha256 = u.draft
     where u.study_id = $1 and u.sha256 = $2 group by u.study_id, u.sha256`,
    [studyId, sha256],
  );
  return row ?? null;
}

const uploadOf = (row: UploadRow): Upload => ({
  sha256: row.sha256,
  bytes: Number(row.bytes),
  name: row.name,
  received: Number(row.received),
});

/** Begins an upload, or goes on with one that was broken off: what has arrived is not sent again. */
export async function beginUpload(
  db: Database,
  studyId: string,
  file: Omit<Upload, 'received'>,
): Promise<Upload> {
  await change(db, async (transaction) => {
    const draft = `draft-${uuid()}`;
    const [begun] = await select(
      db,
      'select 1 from uploads where study_id = $1 and sha256 = $2',
      [studyId, file.sha256],
      transaction,
    );
    if (begun) return;
    const run = (sql: string, bind: unknown[]) => execute(db, sql, bind, transaction);
    await run('insert into stored_files (sha256, bytes) values ($1, 0)', [draft]);
    await run(
      `insert into uploads (study_id, sha256, bytes, name, draft) values ($1, $2, $3, $4, $5)`,
      [studyId, file.sha256, file.bytes, file.name, draft],
    );
  });
  const row = await findRow(db, studyId, file.sha256);
  if (!row) throw new NotFoundError('There is no such upload.');
  return uploadOf(row);
}

/**
 * Adds to an upload. Every full chunk is there for good as soon as it has arrived, so that a broken
 * connection loses less than one.
 *
 * @param offset bytes that the sender takes to be there
 * @throws RefusedError where they are not, or more is sent than was announced
 */
export async function appendUpload(
  db: Database,
  studyId: string,
  sha256: string,
  offset: number,
  content: AsyncIterable<Uint8Array>,
): Promise<Upload> {
  const row = await findRow(db, studyId, sha256);
  if (!row) throw new NotFoundError('There is no such upload: begin it again.');
  const { bytes, received } = uploadOf(row);
  if (offset !== received || (received % CHUNK_BYTES !== 0 && received !== bytes)) {
    throw new RefusedError(`${received} bytes have arrived: go on from there.`);
  }
  let sequence = row.chunks;
  let total = received;
  for await (const chunk of inChunks(content)) {
    total += chunk.length;
    const isLast = total === bytes;
    if (total > bytes) throw new RefusedError('More was sent than the file was said to hold.');
    if (chunk.length < CHUNK_BYTES && !isLast) break;
    await execute(db, 'insert into file_chunks (sha256, sequence, data) values ($1, $2, $3)', [
      row.draft,
      sequence,
      chunk,
    ]);
    sequence += 1;
  }
  const after = await findRow(db, studyId, sha256);
  if (!after) throw new NotFoundError('The upload was given up in the meantime.');
  return uploadOf(after);
}

/**
 * Ends an upload whose bytes are all there: the content becomes a file of the study.
 *
 * @param pathOf a path in the study for a name, free of others
 * @throws RefusedError where the content is not what was announced; the upload is given up then
 */
export async function finishUpload(
  db: Database,
  studyId: string,
  sha256: string,
  path: string,
): Promise<void> {
  const row = await findRow(db, studyId, sha256);
  if (!row) throw new NotFoundError('There is no such upload: begin it again.');
  const hash = createHash('sha256');
  for await (const chunk of readFile(db, row.draft)) hash.update(chunk as Uint8Array);
  if (hash.digest('hex') !== sha256) {
    await dropUpload(db, studyId, sha256);
    throw new RefusedError('What arrived is not what was announced: send the file again.');
  }
  await change(db, async (transaction) => {
    const run = (sql: string, bind: unknown[]) => execute(db, sql, bind, transaction);
    await run('delete from uploads where study_id = $1 and sha256 = $2', [studyId, sha256]);
    const isNew = await select(
      db,
      'insert into stored_files (sha256, bytes) values ($1, $2) on conflict do nothing returning sha256',
      [sha256, Number(row.bytes)],
      transaction,
    );
    if (isNew.length > 0) {
      await run('update file_chunks set sha256 = $1 where sha256 = $2', [sha256, row.draft]);
    }
    await run('delete from stored_files where sha256 = $1', [row.draft]);
    await run(
      'insert into study_files (study_id, path, sha256) values ($1, $2, $3) on conflict do nothing',
      [studyId, path, sha256],
    );
  });
}

/** Gives an upload up, and what has arrived of it. */
export const dropUpload = (db: Database, studyId: string, sha256: string): Promise<void> =>
  change(db, async (transaction) => {
    const rows = await select<{ draft: string }>(
      db,
      'delete from uploads where study_id = $1 and sha256 = $2 returning draft',
      [studyId, sha256],
      transaction,
    );
    for (const { draft } of rows) {
      await execute(db, 'delete from stored_files where sha256 = $1', [draft], transaction);
    }
  });

/** Gives up what was begun more than a day ago and never ended. */
export async function dropOldUploads(db: Database): Promise<void> {
  const rows = await select<{ study_id: string; sha256: string }>(
    db,
    "select study_id, sha256 from uploads where begun_at < now() - interval '1 day'",
    [],
  );
  for (const row of rows) await dropUpload(db, row.study_id, row.sha256);
}

import * as z from 'zod';
import { createHash } from 'node:crypto';
import type { Readable } from 'node:stream';
import { v7 as uuid } from 'uuid';
import { presentActor } from '../actor';
import { asJson, execute, query, someRow, type Database } from '../database';
import { NotFoundError, RefusedError } from '../errors';
import { transact, type Write } from '../write';
import { CHUNK_BYTES, inChunks, linkFile, readFile, settleDraft } from './files';

/** A file that is on its way: so much of it has arrived for good. */
export interface Upload {
  sha256: string;
  bytes: number;
  name: string;
  /** What the sender states about the file, as a kind of files reads it; null: nothing. */
  told?: Record<string, unknown> | null;
  received: number;
}

const uploadRow = z.strictObject({
  sha256: z.string(),
  bytes: z.string(),
  name: z.string(),
  told: z.record(z.string(), z.unknown()).nullable(),
  draft: z.string(),
  chunks: z.number(),
  received: z.string(),
});
type UploadRow = z.infer<typeof uploadRow>;

async function findUpload(
  db: Database,
  studyId: string,
  sha256: string,
): Promise<UploadRow | null> {
  const [row] = await query(
    db,
    uploadRow,
    `select u.sha256, u.bytes, u.name, u.told, u.draft, count(c.sequence)::int as chunks,
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
  told: row.told,
  received: Number(row.received),
});

/** So many files, and so many bytes, somebody may have begun to send and not ended. */
const MOST_BEGUN = { files: 100, bytes: 20 * 1024 ** 3 };

const beginUploadRow = z.strictObject({ files: z.number(), bytes: z.number() });

/**
 * Begins an upload, or goes on with one that was broken off: what has arrived is not sent again.
 *
 * @throws RefusedError where who sends it has begun too many that never ended
 */
export async function beginUpload(
  { db, studyId }: Write,
  file: Omit<Upload, 'received'>,
): Promise<Upload> {
  const begun = await findUpload(db, studyId, file.sha256);
  const told = file.told ? asJson(file.told) : null;
  if (begun) {
    // The latest statement counts.
    await execute(db, 'update uploads set told = $3 where study_id = $1 and sha256 = $2', [
      studyId,
      file.sha256,
      told,
    ]);
    return { ...uploadOf(begun), told: file.told ?? null };
  }
  const draft = `draft-${uuid()}`;
  await execute(db, 'insert into stored_files (sha256, bytes) values ($1, 0)', [draft]);
  await execute(
    db,
    `insert into uploads (study_id, sha256, bytes, name, draft, told) values ($1, $2, $3, $4, $5, $6)`,
    [studyId, file.sha256, file.bytes, file.name, draft, told],
  );
  const [begunByThem] = await query(
    db,
    beginUploadRow,
    `select count(*)::int as files, sum(bytes)::float8 as bytes from uploads
     where entered_by is not distinct from $1`,
    [presentActor()],
  );
  const { files = 0, bytes = 0 } = begunByThem ?? {};
  if (files > MOST_BEGUN.files || bytes > MOST_BEGUN.bytes) {
    throw new RefusedError(
      `You have begun to send ${files - 1} files that did not arrive yet: let them arrive first. ` +
        'What is not sent on is given up after a day.',
    );
  }
  return { ...file, received: 0 };
}

/**
 * Adds to an upload. Every full chunk is there for good as soon as it has arrived, so that a broken
 * connection loses less than one. Of two that send the same part at once, one goes on.
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
  const row = await findUpload(db, studyId, sha256);
  if (!row) throw new NotFoundError('There is no such upload: begin it again.');
  const { bytes, received } = uploadOf(row);
  const goOn = (from: number) => new RefusedError(`${from} bytes have arrived: go on from there.`);
  if (offset !== received || (received % CHUNK_BYTES !== 0 && received !== bytes)) {
    throw goOn(received);
  }
  let sequence = row.chunks;
  let total = received;
  for await (const chunk of inChunks(content)) {
    total += chunk.length;
    const isLast = total === bytes;
    if (total > bytes) throw new RefusedError('More was sent than announced.');
    if (chunk.length < CHUNK_BYTES && !isLast) break;
    const added = await query(
      db,
      someRow,
      `insert into file_chunks (sha256, sequence, data)
       select draft, $3, $4 from uploads where study_id = $1 and sha256 = $2 and draft = $5
       on conflict (sha256, sequence) do nothing returning sequence`,
      [studyId, sha256, sequence, chunk, row.draft],
    );
    if (added.length === 0) {
      const now = await findUpload(db, studyId, sha256);
      throw now ? goOn(uploadOf(now).received) : new NotFoundError('The upload was given up.');
    }
    sequence += 1;
  }
  const after = await findUpload(db, studyId, sha256);
  if (!after) throw new NotFoundError('The upload was given up in the meantime.');
  return uploadOf(after);
}

/**
 * Checks an upload whose bytes are all there against what was announced. Done before its file is made,
 * as it takes as long as the file is large.
 *
 * @returns its content, to be looked into
 * @throws RefusedError where the content is not what was announced; the upload is given up then
 */
export async function verifyUpload(
  db: Database,
  studyId: string,
  sha256: string,
): Promise<Readable> {
  const row = await findUpload(db, studyId, sha256);
  if (!row) throw new NotFoundError('There is no such upload: begin it again.');
  const hash = createHash('sha256');
  for await (const chunk of readFile(db, row.draft)) hash.update(chunk as Uint8Array);
  if (hash.digest('hex') === sha256) return readFile(db, row.draft);
  await dropUpload(db, studyId, sha256);
  throw new RefusedError('What arrived is not what was announced: send the file again.');
}

/** Ends an upload that was verified: its content becomes a file of the study. */
export async function finishUpload(write: Write, sha256: string, path: string): Promise<void> {
  const { db, studyId } = write;
  const row = await findUpload(db, studyId, sha256);
  if (!row) throw new NotFoundError('There is no such upload: begin it again.');
  await execute(db, 'delete from uploads where study_id = $1 and sha256 = $2', [studyId, sha256]);
  await settleDraft(db, row.draft, sha256, Number(row.bytes));
  await linkFile(write, path, sha256);
}

const uploadBegunByRow = z.strictObject({ entered_by: z.string().nullable() });

/** Who began an upload; null where nobody had to say, undefined where there is none. */
export async function uploadBegunBy(
  db: Database,
  studyId: string,
  sha256: string,
): Promise<string | null | undefined> {
  const [found] = await query(
    db,
    uploadBegunByRow,
    'select entered_by from uploads where study_id = $1 and sha256 = $2',
    [studyId, sha256],
  );
  return found && found.entered_by;
}

const dropUploadRow = z.strictObject({ draft: z.string() });

/** Gives an upload up, and what has arrived of it. */
export const dropUpload = (db: Database, studyId: string, sha256: string): Promise<void> =>
  transact(db, async (bound) => {
    const rows = await query(
      bound,
      dropUploadRow,
      'delete from uploads where study_id = $1 and sha256 = $2 returning draft',
      [studyId, sha256],
    );
    for (const { draft } of rows) {
      await execute(bound, 'delete from stored_files where sha256 = $1', [draft]);
    }
  });

const dropOldUploadsRow = z.strictObject({ study_id: z.string(), sha256: z.string() });

/** Gives up what was begun more than a day ago and never ended. */
export async function dropOldUploads(db: Database): Promise<void> {
  const rows = await query(
    db,
    dropOldUploadsRow,
    "select study_id, sha256 from uploads where begun_at < now() - interval '1 day'",
  );
  for (const row of rows) await dropUpload(db, row.study_id, row.sha256);
}

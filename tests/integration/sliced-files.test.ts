import { createHash, randomBytes } from 'node:crypto';
import { Readable } from 'node:stream';
import { buffer } from 'node:stream/consumers';
import { v7 as uuid } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import {
  appendUpload,
  beginUpload,
  createStudy,
  dropUpload,
  findSlicedFile,
  finishUpload,
  insertSlicedFile,
  isStored,
  listFiles,
  migrate,
  readFile,
  RefusedError,
  setReading,
  setReadShare,
  verifyUpload,
  writeStudy,
  type Upload,
  type Database,
} from '../../src/data';
import { freshDatabase } from '../support/database';
import { smallStudy } from '../support/small-study';

let db: Database;
let drop: () => Promise<void>;
const studyId = uuid();

beforeAll(async () => {
  ({ db, drop } = await freshDatabase());
  await migrate(db.sequelize);
  await createStudy(db, studyId, { ...smallStudy({}).meta, reference: null });
});
afterAll(() => drop());

const begin = (file: Omit<Upload, 'received'>) =>
  writeStudy(db, studyId, 'K', (write) => beginUpload(write, file));

const MIB = 1024 * 1024;
const sha = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex');
const stream = (bytes: Uint8Array) => Readable.from([bytes], { objectMode: false });

/** A connection that breaks after some bytes. */
async function* broken(bytes: Uint8Array): AsyncGenerator<Uint8Array> {
  yield await Promise.resolve(bytes);
  throw new Error('the connection broke');
}

describe('an upload', () => {
  it('goes on where a broken connection left it, and is one file in the end', async () => {
    const bytes = randomBytes(3 * MIB + 77);
    const file = { sha256: sha(bytes), bytes: bytes.length, name: 'part.gcode' };
    expect((await begin(file)).received).toBe(0);
    const cut = bytes.subarray(0, MIB + 500_000);
    await expect(appendUpload(db, studyId, file.sha256, 0, broken(cut))).rejects.toThrow('broke');
    // Beginning again finds what had arrived in full chunks, and loses nothing of it.
    const again = await begin(file);
    expect(again.received).toBe(MIB);
    await expect(appendUpload(db, studyId, file.sha256, 0, stream(bytes))).rejects.toBeInstanceOf(
      RefusedError,
    );
    const done = await appendUpload(db, studyId, file.sha256, MIB, stream(bytes.subarray(MIB)));
    expect(done.received).toBe(bytes.length);
    await verifyUpload(db, studyId, file.sha256);
    const purpose = { contender_id: null, artefact_id: null, is_confirmed: false };
    await writeStudy(db, studyId, 'K', async (write) => {
      await finishUpload(write, file.sha256, 'sliced/part.gcode');
      await insertSlicedFile(write, 'sliced/part.gcode', purpose);
    });
    expect((await buffer(readFile(db, file.sha256))).equals(bytes)).toBe(true);
    expect(await listFiles(db, studyId)).toEqual([
      { path: 'sliced/part.gcode', sha256: file.sha256, bytes: bytes.length },
    ]);
    expect(await findSlicedFile(db, studyId, 'sliced/part.gcode')).toMatchObject({
      state: 'waiting',
      bytes: bytes.length,
    });
  });

  it('of something else than was announced is given up', async () => {
    const bytes = randomBytes(1000);
    const file = { sha256: sha(randomBytes(8)), bytes: bytes.length, name: 'x.gcode' };
    await begin(file);
    await appendUpload(db, studyId, file.sha256, 0, stream(bytes));
    await expect(verifyUpload(db, studyId, file.sha256)).rejects.toThrow('not what was announced');
    expect((await begin(file)).received).toBe(0);
    await dropUpload(db, studyId, file.sha256);
  });

  it('of more than was announced is refused', async () => {
    const bytes = randomBytes(1000);
    const file = { sha256: sha(bytes), bytes: 10, name: 'x.gcode' };
    await begin(file);
    await expect(appendUpload(db, studyId, file.sha256, 0, stream(bytes))).rejects.toThrow(
      'More was sent',
    );
    await dropUpload(db, studyId, file.sha256);
    expect(await isStored(db, file.sha256)).toBe(false);
  });
});

describe('the reading of a file', () => {
  it('that has ended is not begun again by news of its progress that comes late', async () => {
    const path = 'sliced/late.gcode';
    const bytes = randomBytes(100);
    const file = { sha256: sha(bytes), bytes: bytes.length, name: 'late.gcode' };
    await begin(file);
    await appendUpload(db, studyId, file.sha256, 0, stream(bytes));
    await verifyUpload(db, studyId, file.sha256);
    await writeStudy(db, studyId, 'K', async (write) => {
      await finishUpload(write, file.sha256, path);
      const purpose = { contender_id: null, artefact_id: null, is_confirmed: false };
      await insertSlicedFile(write, path, purpose);
    });
    await setReading(db, studyId, path, 'reading', 0);
    await setReadShare(db, studyId, path, 0.5);
    expect(await findSlicedFile(db, studyId, path)).toMatchObject({ read_share: 0.5 });
    await setReading(db, studyId, path, 'failed', 0, 'it cannot be read');
    await setReadShare(db, studyId, path, 0.9);
    expect(await findSlicedFile(db, studyId, path)).toMatchObject({
      state: 'failed',
      read_share: 0,
      message: 'it cannot be read',
    });
  });
});

import { WrongInputError } from '../../core/model/faults';
import { createReadStream } from 'node:fs';
import { open, stat } from 'node:fs/promises';
import { basename } from 'node:path';
import { promisify } from 'node:util';
import type { Readable } from 'node:stream';
import { createGunzip } from 'node:zlib';
import yauzl, { type Entry, type ZipFile } from 'yauzl';

/** A sliced file cannot be read: not there, cut off, nothing in it. */
export class SlicedFileError extends WrongInputError {
  override name = 'SlicedFileError';
}

/** A sliced file on disk, opened. */
export interface SlicedFile {
  name: string;
  /** Bytes of the file as stored. */
  bytes: number;
  /** Its text, unpacked; a piece is good until the next one is asked for. */
  text: AsyncIterable<Uint8Array>;
}

/** The most text that is unpacked out of a gzip or a container. */
const MOST_UNPACKED = 20 * 1024 ** 3;
/** From this much on, packed text may be at most this many times its packed size. */
const RATIO_FROM = 256 * 1024 ** 2;
const MOST_RATIO = 200;
const PIECE = 1024 * 1024;
/** Of a plain file: what a processor has at hand. */
const PIECE_OF_FILE = 256 * 1024;

/**
 * Opens a sliced file: plain, compressed by gzip, or inside a zip container (the first by name).
 *
 * @throws SlicedFileError
 */
export async function openSlicedFile(path: string): Promise<SlicedFile> {
  const name = basename(path);
  const facts = await stat(path).catch(() => null);
  if (!facts) throw new SlicedFileError(`${name}: there is no such file`);
  if (!facts.isFile()) throw new SlicedFileError(`${name}: is not a file`);
  if (facts.size === 0) throw new SlicedFileError(`${name}: the file is empty`);
  const head = await firstBytes(path);
  const source = { name, bytes: facts.size };
  if (head[0] === 0x1f && head[1] === 0x8b) {
    const unzip = createGunzip({ chunkSize: PIECE });
    const file = createReadStream(path, { highWaterMark: PIECE });
    file.on('error', (error) => unzip.destroy(error));
    return { ...source, text: bounded(name, facts.size, file.pipe(unzip)) };
  }
  if (head[0] === 0x50 && head[1] === 0x4b) {
    return { ...source, text: bounded(name, facts.size, await openContained(path, name)) };
  }
  return { ...source, text: piecesOf(path) };
}

/** The bytes of a file, through one buffer that is filled anew for every piece. */
async function* piecesOf(path: string): AsyncGenerator<Uint8Array> {
  const file = await open(path);
  try {
    const buffer = new Uint8Array(PIECE_OF_FILE);
    for (;;) {
      const { bytesRead } = await file.read(buffer, 0, buffer.length);
      if (bytesRead === 0) return;
      yield buffer.subarray(0, bytesRead);
    }
  } finally {
    await file.close();
  }
}

async function firstBytes(path: string): Promise<Uint8Array> {
  for await (const chunk of createReadStream(path, { start: 0, end: 3 }))
    return chunk as Uint8Array;
  return new Uint8Array(0);
}

/** Passes unpacked text on; a cut-off archive or one that swells beyond measure is an error. */
async function* bounded(
  name: string,
  stored: number,
  text: AsyncIterable<Uint8Array>,
): AsyncGenerator<Uint8Array> {
  let unpacked = 0;
  try {
    for await (const chunk of text) {
      unpacked += chunk.length;
      const swells = unpacked > RATIO_FROM && unpacked > MOST_RATIO * stored;
      if (unpacked > MOST_UNPACKED || swells) {
        throw new SlicedFileError(`${name}: unpacks to far more than a sliced file would`);
      }
      yield chunk;
    }
  } catch (error) {
    if (error instanceof SlicedFileError) throw error;
    const reason = error instanceof Error ? error.message : 'unknown';
    throw new SlicedFileError(`${name}: is cut off or damaged (${reason})`);
  }
}

const IS_SLICED = /\.(?:gcode|gco|g|nc)$/i;

const openZip = promisify<string, yauzl.Options, ZipFile>(yauzl.open);

async function openContained(path: string, name: string): Promise<Readable> {
  const zip = await openZip(path, { lazyEntries: true, autoClose: false }).catch(
    (error: unknown) => {
      const reason = error instanceof Error ? error.message : 'unknown';
      throw new SlicedFileError(`${name}: is no container that can be read (${reason})`);
    },
  );
  try {
    const first = await firstSliced(zip);
    if (!first) throw new SlicedFileError(`${name}: holds no sliced file`);
    const open = promisify<Entry, Readable>((entry, done) => zip.openReadStream(entry, done));
    const stream = await open(first);
    stream.once('close', () => zip.close());
    return stream;
  } catch (error) {
    zip.close();
    if (error instanceof SlicedFileError) throw error;
    const reason = error instanceof Error ? error.message : 'unknown';
    throw new SlicedFileError(`${name}: is cut off or damaged (${reason})`);
  }
}

function firstSliced(zip: ZipFile): Promise<Entry | null> {
  let first: Entry | null = null;
  let seen = 0;
  return new Promise((resolve, reject) => {
    zip.on('error', reject);
    zip.on('end', () => resolve(first));
    zip.on('entry', (entry: Entry) => {
      seen += 1;
      if (seen > 100_000) {
        reject(new SlicedFileError('the container holds too many files'));
        return;
      }
      if (IS_SLICED.test(entry.fileName) && (!first || entry.fileName < first.fileName)) {
        first = entry;
      }
      zip.readEntry();
    });
    zip.readEntry();
  });
}

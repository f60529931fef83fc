import { promisify } from 'node:util';
import type { Readable } from 'node:stream';
import { buffer } from 'node:stream/consumers';
import { crc32 } from 'node:zlib';
import yauzl, { type Entry, type ZipFile } from 'yauzl';
import { isInsidePath } from '../../core/model/study';
import type { Fault } from '../../core/model/package';
import { PackageError, type PackageFiles } from './files';
import { isReadWhole, LIMITS, formatBytes } from './limits';

const open = promisify<string, yauzl.Options, ZipFile>(yauzl.open);

/**
 * Opens a study package in a zip. `datapackage.json` stands at the top or in the one folder that
 * holds everything. Entries are looked at before anything is unpacked.
 *
 * @throws PackageError where the file is no zip, or unpacks to more than the limits
 */
export async function openZip(file: string): Promise<PackageFiles> {
  const zip = await open(file, {
    lazyEntries: true,
    autoClose: false,
    decodeStrings: false,
    validateEntrySizes: true,
  }).catch((error: unknown) => {
    throw new PackageError(`the file is not a zip that can be read: ${reason(error)}`);
  });
  try {
    return await describe(zip);
  } catch (error) {
    zip.close();
    throw error instanceof PackageError
      ? error
      : new PackageError(`the zip is damaged: ${reason(error)}`);
  }
}

const reason = (error: unknown): string => (error instanceof Error ? error.message : 'unknown');

async function describe(zip: ZipFile): Promise<PackageFiles> {
  const entries = await listEntries(zip);
  const prefix = commonFolder([...entries.keys()]);
  const faults: Fault[] = [];
  const leaving = new Set<string>();
  const kept = new Map<string, Entry>();
  for (const [name, entry] of entries) {
    const path = name.startsWith(prefix) ? name.slice(prefix.length) : name;
    if (path.split('/').some((part) => part.startsWith('.') && part !== '..' && part !== '.')) {
      continue;
    }
    const message = whyNot(path, entry);
    if (message === null) kept.set(path, entry);
    else {
      faults.push({ file: path, line: 1, column: '-', message });
      if (isLink(entry)) leaving.add(path);
    }
  }
  const openEntry = promisify<Entry, Readable>((entry, done) => {
    zip.openReadStream(entry, (error, stream) => done(error, stream));
  });
  const stream = async (path: string) => {
    const entry = kept.get(path);
    if (!entry) throw new PackageError(`no file ${path} in the zip`);
    return (await openEntry(entry)).compose(whole(entry)) as Readable;
  };
  return {
    paths: [...kept.keys()],
    faults,
    leaving,
    stream,
    sizeOf: (path) => kept.get(path)?.uncompressedSize ?? 0,
    read: async (path) => {
      try {
        return await buffer(await stream(path));
      } catch (error) {
        throw new PackageError(`${path} cannot be unpacked: ${reason(error)}`);
      }
    },
    close: () => {
      zip.close();
      return Promise.resolve();
    },
  };
}

/** An entry's name: the library is asked for its bytes, whatever its types say. */
const nameOf = ({ fileName }: { fileName: unknown }): string =>
  fileName instanceof Uint8Array ? new TextDecoder().decode(fileName) : String(fileName);

/** Passes on what an entry holds, and fails at its end where that is not what was packed. */
const whole = (entry: Entry) =>
  async function* (content: AsyncIterable<Buffer>): AsyncGenerator<Buffer> {
    let sum = 0;
    for await (const chunk of content) {
      sum = crc32(chunk, sum);
      yield chunk;
    }
    if (sum !== entry.crc32) throw new Error('its checksum does not fit: the file was damaged');
  };

function listEntries(zip: ZipFile): Promise<Map<string, Entry>> {
  const entries = new Map<string, Entry>();
  let unpacked = 0;
  let tables = 0;
  return new Promise((resolve, reject) => {
    zip.on('error', reject);
    zip.on('end', () => resolve(entries));
    zip.on('entry', (entry: Entry) => {
      const name = nameOf(entry);
      unpacked += entry.uncompressedSize;
      if (isReadWhole(name)) tables += entry.uncompressedSize;
      if (entries.size >= LIMITS.files) {
        reject(new PackageError(`the zip holds more than ${LIMITS.files} files`));
      } else if (unpacked > LIMITS.totalBytes) {
        reject(new PackageError(`the zip unpacks to more than ${formatBytes(LIMITS.totalBytes)}`));
      } else if (tables > LIMITS.tablesBytes) {
        reject(
          new PackageError(`its tables unpack to more than ${formatBytes(LIMITS.tablesBytes)}`),
        );
      } else if (entries.has(name)) {
        reject(new PackageError(`the zip holds ${name} twice`));
      } else {
        if (!name.endsWith('/')) entries.set(name, entry);
        zip.readEntry();
      }
    });
    zip.readEntry();
  });
}

/** The one folder that a zip wraps around its package, or nothing. */
function commonFolder(names: readonly string[]): string {
  if (names.includes('datapackage.json')) return '';
  const inFolder = names.filter((name) => /^[^/]+\/datapackage\.json$/.test(name));
  return inFolder.length === 1 ? (inFolder[0] ?? '').replace(/[^/]+$/, '') : '';
}

const LINK_TYPE = 0o120000;

const isLink = (entry: Entry): boolean =>
  ((entry.externalFileAttributes >>> 16) & 0o170000) === LINK_TYPE;

function whyNot(path: string, entry: Entry): string | null {
  if (!isInsidePath(path)) return 'leads outside the package';
  if (isLink(entry)) {
    return 'is a link: put the file itself into the zip';
  }
  if ((entry.generalPurposeBitFlag & 1) !== 0) return 'is encrypted';
  if (entry.compressionMethod !== 0 && entry.compressionMethod !== 8) {
    return 'is packed by a method other than deflate';
  }
  const size = entry.uncompressedSize;
  if (isReadWhole(path) && size > LIMITS.tableBytes) {
    return `unpacks to ${formatBytes(size)}; at most ${formatBytes(LIMITS.tableBytes)}`;
  }
  if (size > LIMITS.ratioFromBytes && size > LIMITS.ratio * entry.compressedSize) {
    return `unpacks to ${formatBytes(size)}, over ${LIMITS.ratio} times its packed size`;
  }
  return null;
}

import {
  dropDatabase,
  makeDatabase,
  openDatabase,
  sumTables,
  transact,
  type Database,
} from '../../data';
import { BackupError } from './fault';
import { hashOfFile, readManifest, type Manifest } from './manifest';
import { runProgram } from './pg-program';

/** Tables that did not come to what a backup says of them. */
export async function differing(db: Database, { tables }: Manifest): Promise<string[]> {
  const now = await transact(db, sumTables);
  return Object.entries(tables)
    .filter(([name, sum]) => now[name]?.rows !== sum.rows || now[name].sha256 !== sum.sha256)
    .map(([name]) => name);
}

/** Puts a dump into an empty database, all of it or nothing. @throws BackupError */
export function fillFrom(file: string, databaseUrl: string): Promise<void> {
  const name = decodeURIComponent(new URL(databaseUrl).pathname.slice(1));
  const ways = ['--exit-on-error', '--single-transaction', '--no-owner', '--no-privileges'];
  return runProgram('pg_restore', [...ways, `--dbname=${name}`, file], databaseUrl);
}

/** The database into which backups are read back; it is there only while one is. */
const SCRATCH = 'vergleich_read_back';

/**
 * Reads a backup back into a database of its own on the same server, compares it with what it must come to, and
 * takes that database away again.
 *
 * @throws BackupError where it is not what it was
 */
export async function readBack(db: Database, databaseUrl: string, file: string): Promise<void> {
  const manifest = await readManifest(file);
  const found = await hashOfFile(file);
  if (found.sha256 !== manifest.dump.sha256) {
    throw new BackupError(`${file} was changed since it was made: make another backup.`);
  }
  const url = new URL(databaseUrl);
  url.pathname = `/${SCRATCH}`;
  await makeDatabase(db, SCRATCH);
  try {
    await fillFrom(file, url.href);
    const scratch = openDatabase(url.href, { connections: 1 });
    try {
      const wrong = await differing(scratch, manifest);
      if (wrong.length > 0) {
        throw new BackupError(
          `Read back, these tables of ${file} are not what they were: ${wrong.join(', ')}. Make another backup.`,
        );
      }
    } finally {
      await scratch.sequelize.close();
    }
  } finally {
    await dropDatabase(db, SCRATCH);
  }
}

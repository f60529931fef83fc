import { countTables, emptyDatabase, isEmptyDatabase, openDatabase } from '../data';
import { makeBackup, rowsOf } from '../server/backup/dump';
import { beside, hashOfFile, readManifest } from '../server/backup/manifest';
import { differing, fillFrom } from '../server/backup/read-back';
import { inWords } from './in-words';
import { InputError } from './input-error';
import { withDatabase } from './with-database';

const urlOf = (): string => process.env.DATABASE_URL ?? '';

/** `vergleich backup`: a dump as the database stands at one moment, and beside it what it must come to. */
export const runBackup = (to: string): Promise<void> =>
  withDatabase(async (db) => {
    const manifest = await makeBackup(db, urlOf(), to).catch(inWords);
    process.stdout.write(
      `${to}: ${manifest.dump.bytes} bytes, ${rowsOf(manifest)} rows; keep ${beside(to)} with it\n`,
    );
  }, 'nothing');

/** `vergleich restore`: puts a backup into an empty database, and checks that it came to what it was. */
export async function runRestore(file: string): Promise<void> {
  if (urlOf() === '')
    throw new InputError('DATABASE_URL is not set: it names the empty database to restore into');
  const manifest = await readManifest(file).catch(inWords);
  const found = await hashOfFile(file).catch(() => {
    throw new InputError(`${file} cannot be read.`);
  });
  if (found.sha256 !== manifest.dump.sha256) {
    throw new InputError(
      `${file} is not what was backed up: its SHA-256 is ${found.sha256}, it must be ` +
        `${manifest.dump.sha256}. Nothing was restored.`,
    );
  }
  const db = openDatabase(urlOf());
  try {
    const isEmpty = await isEmptyDatabase(db).catch((error: unknown) => {
      throw new InputError(`The database in DATABASE_URL cannot be used: ${String(error)}`);
    });
    if (!isEmpty)
      throw new InputError(
        'The database in DATABASE_URL is not empty. A backup is restored into an empty one only.',
      );
    await fillFrom(file, urlOf()).catch(inWords);
    const wrong = await differing(db, manifest);
    if (wrong.length > 0) {
      await emptyDatabase(db);
      throw new InputError(
        `These tables did not come to what they were: ${wrong.join(', ')}. The database is empty ` +
          'again: nothing was restored.',
      );
    }
    // Without it pages are slow for a minute, no more: it is no reason to fail.
    await countTables(db).catch(() => undefined);
    process.stdout.write(
      `${Object.keys(manifest.tables).length} tables, all as they were on ${manifest.made_at}\n`,
    );
  } finally {
    await db.sequelize.close();
  }
}

import { rename, rm, writeFile } from 'node:fs/promises';
import { version } from '../../../package.json';
import { asItStands, migrationsOf, NOT_KEPT, sumTables, type Database } from '../../data';
import { BackupError } from './fault';
import { beside, hashOfFile, type Manifest } from './manifest';
import { runProgram } from './pg-program';

/** The migrations that a database has behind it. @throws BackupError where it is not of this application */
export async function ranOn(db: Database): Promise<string[]> {
  const ran = await migrationsOf(db);
  if (ran.length === 0)
    throw new BackupError('The database in DATABASE_URL is not of this application.');
  return ran;
}

/**
 * Dumps a database as it stands at one moment, with what the dump must come to beside it. The schema stays as it
 * is: one keeps a backup before an upgrade. What is half made lies under another name until it is whole.
 *
 * @param to path of the dump
 * @throws BackupError
 */
export async function makeBackup(db: Database, databaseUrl: string, to: string): Promise<Manifest> {
  await ranOn(db);
  const [draft, draftBeside] = [`${to}.part`, `${beside(to)}.part`];
  try {
    const manifest = await asItStands(db, async (bound, snapshot): Promise<Manifest> => {
      await runProgram(
        'pg_dump',
        [
          // Most of it is photos, which are packed already: harder takes three times as long, for a twentieth less.
          '--format=custom',
          '--compress=1',
          `--snapshot=${snapshot}`,
          `--file=${draft}`,
          // Jobs are created again from the work that is left.
          '--no-owner',
          '--no-privileges',
          '--exclude-schema=jobs',
          ...NOT_KEPT.map((table) => `--exclude-table-data=public.${table}`),
        ],
        databaseUrl,
        draft,
      );
      return {
        format: 1,
        version,
        made_at: new Date().toISOString(),
        migrations: await migrationsOf(bound),
        dump: await hashOfFile(draft),
        tables: await sumTables(bound),
      };
    });
    await writeFile(draftBeside, `${JSON.stringify(manifest, null, 2)}\n`);
    await rename(draftBeside, beside(to));
    await rename(draft, to);
    return manifest;
  } catch (error) {
    await Promise.all([draft, draftBeside].map((path) => rm(path, { force: true })));
    throw error;
  }
}

/** How many rows a backup holds. */
export const rowsOf = ({ tables }: Manifest): number =>
  Object.values(tables).reduce((sum, table) => sum + table.rows, 0);

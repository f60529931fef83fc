import type { Sequelize } from 'sequelize';
import type { UmzugStorage } from 'umzug';
import * as z from 'zod';
import { query } from './database';
import { syncDomains } from './domains';
import { MIGRATIONS } from './migrations';

/** A number of our own, under which only one process migrates at a time. */
const MIGRATION_LOCK = 7_205_318;

/** Names of the migrations that this program knows. */
export const KNOWN_MIGRATIONS: readonly string[] = MIGRATIONS.map(({ name }) => name);

/** The database was brought to a schema that this program does not know. */
export class NewerDatabaseError extends Error {
  override name = 'NewerDatabaseError';
  constructor(steps: readonly string[]) {
    super(
      `The database is newer than this program: it has ${steps.join(', ')}. Start a program that ` +
        'knows them, or restore an older backup. Nothing was changed.',
    );
  }
}

/**
 * Brings the database to the newest schema, and its constraints to what the tables' rows may hold; returns the
 * names of the migrations that ran.
 *
 * @param areConstraintsSure whether they are looked at only where a migration ran
 * @throws NewerDatabaseError where it is newer than this program; nothing is changed then
 */
export async function migrate(sequelize: Sequelize, areConstraintsSure = false): Promise<string[]> {
  return sequelize.transaction(async (transaction) => {
    const run = (sql: string, bind: unknown[] = []) =>
      sequelize.query(sql, { transaction, ...(bind.length > 0 && { bind }) });
    await run('select pg_advisory_xact_lock($1)', [MIGRATION_LOCK]);
    await run(
      'create table if not exists migrations (name text primary key, ran_at timestamptz not null default now())',
    );
    const storage: UmzugStorage = {
      logMigration: async ({ name }) => {
        await run('insert into migrations (name) values ($1)', [name]);
      },
      unlogMigration: async ({ name }) => {
        await run('delete from migrations where name = $1', [name]);
      },
      executed: async () => {
        const rows = await query(
          { sequelize, transaction },
          z.strictObject({ name: z.string() }),
          'select name from migrations',
        );
        return rows.map((row) => row.name);
      },
    };
    const ran = await storage.executed({ context: {} });
    const newer = ran.filter((name) => !KNOWN_MIGRATIONS.includes(name));
    if (newer.length > 0) throw new NewerDatabaseError(newer);
    const now = ran.length < MIGRATIONS.length ? await bringUp(run, storage) : [];
    if (now.length > 0 || !areConstraintsSure) await syncDomains(sequelize, transaction);
    return now;
  });
}

/** Runs the migrations that have not run; returns their names. */
async function bringUp(
  run: (sql: string) => Promise<unknown>,
  storage: UmzugStorage,
): Promise<string[]> {
  // It reads a hundred files to be there, for what most starts have nothing of.
  const { Umzug } = await import('umzug');
  const umzug = new Umzug({
    migrations: MIGRATIONS.map(({ name, up, down }) => ({
      name,
      up: () => run(up),
      down: () => run(down),
    })),
    storage,
    logger: undefined,
  });
  return (await umzug.up()).map((migration) => migration.name);
}

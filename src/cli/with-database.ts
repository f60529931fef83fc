import { migrate, NewerDatabaseError, openDatabase, type Database } from '../data';
import { InputError } from './input-error';

/**
 * Works on the database in DATABASE_URL.
 *
 * @param bring what is brought to the newest first: its tables with their constraints, or nothing; what
 *   writes no row of a study has nothing to do with constraints, and does without looking at them
 * @throws InputError
 */
export async function withDatabase<Result>(
  work: (db: Database) => Promise<Result>,
  bring: 'all' | 'tables' | 'nothing' = 'all',
): Promise<Result> {
  const databaseUrl = process.env.DATABASE_URL;
  if (!databaseUrl)
    throw new InputError(
      'DATABASE_URL is not set, and the application does not run here: start it with npm start, or name its database',
    );
  const db = openDatabase(databaseUrl);
  try {
    await db.sequelize.authenticate().catch((error: unknown) => {
      const reason = error instanceof Error ? error.message : 'no answer';
      throw new InputError(`The database in DATABASE_URL cannot be used: ${reason}`);
    });
    if (bring !== 'nothing') await migrate(db.sequelize, bring === 'tables');
    return await work(db);
  } catch (error) {
    throw error instanceof NewerDatabaseError ? new InputError(error.message) : error;
  } finally {
    await db.sequelize.close();
  }
}

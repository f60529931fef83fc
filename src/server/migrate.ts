import { isDatabaseAway, migrate, tieRows, transact } from '../data';
import type { App } from './app';

/**
 * Brings the application's database to the newest schema, and every row of a thing its place in the
 * workshop.
 *
 * @throws Error in words where the database cannot be used
 */
export async function migrateDatabase(app: App): Promise<void> {
  try {
    await migrate(app.db.sequelize);
    // Rows that are older than the workshop get their things.
    await transact(app.db, (bound) => tieRows(bound, null, { knownAt: new Date(), isKept: false }));
  } catch (error) {
    if (!isDatabaseAway(error)) throw error;
    const why = error instanceof Error && error.message !== '' ? error.message : 'no answer';
    throw new Error(
      `The database in DATABASE_URL cannot be used (${why}): start it, or unset DATABASE_URL.`,
      { cause: error },
    );
  }
}

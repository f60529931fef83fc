import { linkForOwner } from '../server/access/links';
import { withDatabase } from './with-database';

/** `vergleich owner-link`: prints a link that makes an owner, or gives one another password. */
export const runOwnerLink = (): Promise<void> =>
  withDatabase(async (db) => {
    const path = await linkForOwner(db);
    process.stdout.write(
      'Open this in a browser on this computer, behind the application’s address, once, ' +
        `within 15 minutes:\n${path}\n`,
    );
  }, 'tables');

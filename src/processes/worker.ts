import { clearFolders } from '../files/temporary';
import { migrateDatabase } from '../server/migrate';
import { openApp } from './app';
import { endWhenTold, endWithWords, outliveStrayFaults } from './ending';
import { startJobs } from './jobs';

/** Works on what requests leave to be done, beside those who answer them. */
async function work(): Promise<void> {
  const app = openApp();
  endWhenTold(app, () => undefined);
  outliveStrayFaults(app);
  clearFolders();
  await migrateDatabase(app);
  await startJobs(app);
  process.stdout.write('Working on sliced files, photos and reports.\n');
  process.send?.({ isWorking: true });
}

work().catch(endWithWords);

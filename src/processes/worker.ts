import { clearFolders } from '../files/temporary';
import { app } from '../server/app';
import { startJobs } from '../server/jobs';
import { migrateDatabase } from '../server/migrate';
import { endWhenTold, endWithWords, outliveStrayFaults } from './ending';

/** Works on what requests leave to be done, beside those who answer them. */
async function work(): Promise<void> {
  endWhenTold(() => undefined);
  outliveStrayFaults();
  clearFolders();
  await migrateDatabase();
  await startJobs(app());
  process.stdout.write('Working on sliced files, photos and reports.\n');
  process.send?.({ isWorking: true });
}

work().catch(endWithWords);

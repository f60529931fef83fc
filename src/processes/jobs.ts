import {
  bePresent,
  dropOldUploads,
  dropOtherEditions,
  dropUnnamedContent,
  openJobKeys,
  unmadePictures,
  unmadeRevisions,
  unreadFiles,
} from '../data';
import type { App } from '../server/app';
import {
  keyOf,
  queuePhoto,
  queueReading,
  queueReport,
  queueUnread,
  type PhotoJob,
  type ReportJob,
  type SlicedFileJob,
} from '../server/jobs';
import { openQueue } from '../server/jobs/queue';
import { readPhoto } from '../server/photos/job';
import { makeReport } from '../server/report/job';
import { readSlicedFile } from '../server/sliced-files/job';
import { keepHouse } from './house';

/**
 * Opens the job queue, and takes up what was left when the last process ended.
 *
 * @param isWorking whether this process works on jobs, or leaves them to others
 */
export async function startJobs(app: App, isWorking = true): Promise<void> {
  const url = process.env.DATABASE_URL ?? '';
  app.presence = await bePresent(url);
  const workplace = { db: app.db, log: app.log, presence: app.presence, isWorking };
  app.jobs = await openQueue(url, workplace, {
    'sliced-file': (job: SlicedFileJob, isLastTry) => readSlicedFile(app, job, isLastTry),
    photo: (job: PhotoJob, isLastTry) => readPhoto(app, job, isLastTry),
    report: (job: ReportJob, isLastTry) => makeReport(app, job, isLastTry),
  });
  const tidy = [
    () => dropOldUploads(app.db),
    () => dropUnnamedContent(app.db),
    () => dropOtherEditions(app.db, app.edition),
  ];
  // What another edition has read is read anew; that is asked once.
  if (isWorking) tidy.push(() => queueUnread(app));
  for (const work of tidy) {
    // What cannot be tidied up keeps nobody from working.
    await work().catch((error: unknown) => app.log.error(error, 'tidying up at the start'));
  }
  if (isWorking) keepHouse(app, () => takeUp(app));
}

/**
 * Has done what is to be done and of which there is no job: left when the last process ended, or committed in the
 * moment in which the database went away.
 */
async function takeUp(app: App): Promise<void> {
  const files = await openJobKeys(app.db, 'sliced-file');
  for (const { study_id, path, state } of await unreadFiles(app.db, app.edition)) {
    if (state === 'read' || files.has(keyOf(study_id, path))) continue;
    await queueReading(app, study_id, path, false);
  }
  const photos = await openJobKeys(app.db, 'photo');
  for (const { study_id, path } of await unmadePictures(app.db, null)) {
    if (!photos.has(keyOf(study_id, path))) await queuePhoto(app, study_id, path, false);
  }
  const reports = await openJobKeys(app.db, 'report');
  for (const { study_id, number } of await unmadeRevisions(app.db)) {
    if (reports.has(keyOf(study_id, number))) continue;
    await queueReport(app, { studyId: study_id, number }, false);
  }
}

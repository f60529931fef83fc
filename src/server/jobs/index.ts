import { dropOldUploads, unreadFiles } from '../../data';
import type { App } from '../app';
import { openQueue } from './queue';
import { readSlicedFile, type SlicedFileJob } from './read-sliced-file';

/** Opens the job queue, and takes up what was left when the last process ended. */
export async function startJobs(app: App): Promise<void> {
  const url = process.env.DATABASE_URL ?? '';
  app.jobs = await openQueue(url, app.log, {
    'sliced-file': (job: SlicedFileJob, isLastTry) => readSlicedFile(app, job, isLastTry),
  });
  await dropOldUploads(app.db);
  await queueUnread(app);
}

/** Has every sliced file read that nobody has read yet, or that another edition has read. */
export async function queueUnread(app: App): Promise<void> {
  for (const file of await unreadFiles(app.db, app.edition)) {
    await queueReading(app, file.study_id, file.path, false);
  }
}

/** Has a sliced file read as soon as a thread is free. */
export async function queueReading(
  app: App,
  studyId: string,
  path: string,
  isUrgent = true,
): Promise<void> {
  await app.jobs?.send('sliced-file', { studyId, path }, `${studyId} ${path}`, isUrgent);
}

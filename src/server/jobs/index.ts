import {
  bePresent,
  dropOldUploads,
  dropOtherEditions,
  dropUnnamedContent,
  unmadePictures,
  unreadFiles,
} from '../../data';
import type { App } from '../app';
import { openQueue } from './queue';
import { readPhoto, type PhotoJob } from './read-photo';
import { readSlicedFile, type SlicedFileJob } from './read-sliced-file';

/** Opens the job queue, and takes up what was left when the last process ended. */
export async function startJobs(app: App): Promise<void> {
  const url = process.env.DATABASE_URL ?? '';
  app.presence = await bePresent(url);
  app.jobs = await openQueue(url, app.log, app.presence.isAlone, {
    'sliced-file': (job: SlicedFileJob, isLastTry) => readSlicedFile(app, job, isLastTry),
    photo: (job: PhotoJob, isLastTry) => readPhoto(app, job, isLastTry),
  });
  const tidy = [
    () => dropOldUploads(app.db),
    () => dropUnnamedContent(app.db),
    () => dropOtherEditions(app.db, app.edition),
    () => queueUnread(app),
    () => queueUnmade(app),
  ];
  for (const work of tidy) {
    // What cannot be tidied up keeps nobody from working.
    await work().catch((error: unknown) => app.log.error(error, 'tidying up at the start'));
  }
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

/** Has every photo looked into of which nothing was made yet, those that came with packages too. */
export async function queueUnmade(app: App, studyId: string | null = null): Promise<void> {
  for (const { study_id, path } of await unmadePictures(app.db, studyId)) {
    await queuePhoto(app, study_id, path, false);
  }
}

/** Has what a photo wants done as soon as a thread is free. */
export async function queuePhoto(
  app: App,
  studyId: string,
  path: string,
  isUrgent = true,
): Promise<void> {
  await app.jobs?.send('photo', { studyId, path }, `${studyId} ${path}`, isUrgent);
}

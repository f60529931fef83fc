import { unmadePictures, unreadFiles } from '../../data';
import type { App } from '../app';

/** A sliced file that is to be read. */
export interface SlicedFileJob {
  studyId: string;
  path: string;
}

/** A photo that wants something done. */
export interface PhotoJob {
  studyId: string;
  path: string;
}

/** A revision of a report that is to be made. */
export interface ReportJob {
  studyId: string;
  number: number;
}

/** What a job is about, by which it waits once. */
export const keyOf = (studyId: string, about: string | number): string => `${studyId} ${about}`;

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
  await app.jobs?.send('sliced-file', { studyId, path }, keyOf(studyId, path), isUrgent);
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
  await app.jobs?.send('photo', { studyId, path }, keyOf(studyId, path), isUrgent);
}

/** Has a revision of a report made as soon as a thread is free. */
export async function queueReport(app: App, job: ReportJob, isUrgent = true): Promise<void> {
  await app.jobs?.send('report', job, keyOf(job.studyId, job.number), isUrgent);
}

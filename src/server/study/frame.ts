import { contenderMarks, type ContenderMark, type StudyMeta } from '../../core/model/study';
import { findStudy, listTables, metaOfRecord } from '../../data';
import type { App } from '../app';
import { progressOf, type StudyProgress } from './progress';

/** What every page of a study shows around its work area. */
export interface StudyFrame {
  studyId: string;
  meta: StudyMeta;
  version: number;
  revision: string;
  updatedAt: string;
  marks: ContenderMark[];
  progress: StudyProgress;
}

/** Reads what every page of a study shows. @throws NotFoundError */
export async function studyFrame(app: App, studyId: string): Promise<StudyFrame> {
  const { db } = app;
  const record = await findStudy(db, studyId);
  const [{ contenders, machines, profiles }, progress] = await Promise.all([
    listTables(db, studyId, ['contenders', 'machines', 'profiles']),
    progressOf(db, record),
  ]);
  return {
    studyId,
    meta: metaOfRecord(record),
    version: record.version,
    revision: record.revision,
    updatedAt: record.updated_at.toISOString(),
    marks: contenderMarks(contenders, machines, profiles),
    progress,
  };
}

import {
  contenderMarks,
  type Contender,
  type ContenderMark,
  type Machine,
  type Profile,
} from '../core/study';
import { findStudy, listRows, metaOfRecord } from '../data';
import type { StudyMeta } from '../core/study';
import { app } from './app';
import { progressOf, type Progress } from './progress';

/** What every page of a study shows around its work area. */
export interface StudyFrame {
  studyId: string;
  meta: StudyMeta;
  version: number;
  revision: string;
  updatedAt: string;
  marks: ContenderMark[];
  progress: Progress[];
}

/** Reads what every page of a study shows. @throws NotFoundError */
export async function studyFrame(studyId: string): Promise<StudyFrame> {
  const { db } = app();
  const record = await findStudy(db, studyId);
  const [contenders, machines, profiles, progress] = await Promise.all([
    listRows(db, studyId, 'contenders'),
    listRows(db, studyId, 'machines'),
    listRows(db, studyId, 'profiles'),
    progressOf(db, record),
  ]);
  return {
    studyId,
    meta: metaOfRecord(record),
    version: record.version,
    revision: record.revision,
    updatedAt: record.updated_at.toISOString(),
    marks: contenderMarks(
      contenders as unknown as Contender[],
      machines as unknown as Machine[],
      profiles as unknown as Profile[],
    ),
    progress,
  };
}

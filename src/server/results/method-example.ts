import type { AccuracySummary } from '../../core/answers/results';
import { contenderMarks, type ContenderMark } from '../../core/model/study';
import { findStudy, listTables } from '../../data';
import type { App } from '../app';
import { foundOrNull } from '../http/found';
import { resultsOf } from './results';

/** Two contenders of a study, with their accuracy: what methods are explained with. */
export interface MethodExample {
  title: string;
  /** The smallest difference that matters, mm; null where none is stated. */
  delta: number | null;
  /** The reference first. */
  rows: { mark: ContenderMark; accuracy: AccuracySummary }[];
}

/** What methods can be explained with from a study; null where it is gone or nothing is measured. */
export async function methodExample(app: App, studyId: string): Promise<MethodExample | null> {
  const record = await foundOrNull(findStudy(app.db, studyId));
  if (record === null || record.reference === null) return null;
  const [{ contenders, machines, profiles }, { accuracy }] = await Promise.all([
    listTables(app.db, studyId, ['contenders', 'machines', 'profiles']),
    resultsOf(app, { studyId, reference: null }, ['accuracy']),
  ]);
  const rows = contenderMarks(contenders, machines, profiles).flatMap((mark) => {
    const own = accuracy?.[mark.contender_id];
    return own === undefined || own.mae_mm.estimate === null ? [] : [{ mark, accuracy: own }];
  });
  const reference = rows.find(({ mark }) => mark.contender_id === record.reference);
  const other = rows.find(({ mark }) => mark.contender_id !== record.reference);
  if (!reference || !other) return null;
  return {
    title: record.title,
    delta: record.smallest_difference.accuracy_mm ?? null,
    rows: [reference, other],
  };
}

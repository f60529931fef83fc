import type { Evidence } from '../../core/answers/evidence';
import {
  DEFAULT_ALPHA,
  DEFAULT_SEED,
  needsOf,
  sectionOfFigure,
  type EvaluateTask,
} from '../../core/answers/results';
import { type TableName, isTableName } from '../../core/model/study';
import { findRow, findStudy, loadSentStudy, NotFoundError } from '../../data';
import type { App } from '../app';
import { freshFrom } from './results';

/** A figure's evidence, as the study stands now. */
export interface FoundEvidence extends Evidence {
  /** Whether what the figure hangs on has changed since the revision that the page shows. */
  isNewer: boolean;
}

/**
 * What a figure was computed from, found off the main thread.
 *
 * @param seen the revision of the figure as it is on the page; null where that is not said
 * @throws NotFoundError for an unknown figure or reference
 */
export async function evidenceOfFigure(
  app: App,
  studyId: string,
  figure: string,
  asked: string | null,
  seen: number | null,
): Promise<FoundEvidence> {
  const { db, threads } = app;
  const record = await findStudy(db, studyId);
  const section = sectionOfFigure(figure);
  const notThere = new NotFoundError('There is no such figure.');
  if (section === null) throw notThere;
  const tables = [...needsOf(section)].filter((part): part is TableName => isTableName(part));
  if (asked !== null) await findRow(db, studyId, 'contenders', { contender_id: asked });
  const reference = asked ?? record.reference;
  const { study } = await loadSentStudy(db, studyId, tables);
  const options = {
    alpha: DEFAULT_ALPHA,
    seed: DEFAULT_SEED,
    ...(reference !== null && { reference }),
  };
  const task: EvaluateTask = { study, options, figure };
  const outcome = await threads.run(task);
  if (!('evidence' in outcome) || !outcome.evidence) throw notThere;
  const isNewer = seen !== null && seen < freshFrom(record, section);
  return { ...outcome.evidence, isNewer };
}

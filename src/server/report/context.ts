import {
  DEFAULT_ALPHA,
  DEFAULT_SEED,
  SECTION_NAMES,
  type PartName,
  type ReportedResults,
} from '../../core/answers/results';
import { openReport, type ReportContext } from '../../core/text/report';
import type { TableName } from '../../core/model/study';
import { loadStudy } from '../../data';
import type { App } from '../app';
import { resultsOf } from '../results/results';

/** The tables that the words of a report hang on; photos are cut when it is made. */
const TABLES: readonly TableName[] = [
  'machines',
  'profiles',
  'contenders',
  'artefacts',
  'ladders',
  'ladder_steps',
  'panels',
  'panel_setups',
  'panel_notes',
  'ballots',
  'ballot_times',
  'prints',
  'instruments',
  'claims',
  'marks',
  'borrowed',
  'accepted_differences',
  'verdicts',
  'verdict_figures',
];

/** The names of everything that is kept of results but deviations and items, which no report prints. */
const PARTS: readonly PartName[] = SECTION_NAMES;

/** A study and its results as they stand now, for the words of its report. */
export async function reportContext(
  app: App,
  studyId: string,
): Promise<{ context: ReportContext; isStale: boolean }> {
  const { study } = await loadStudy(app.db, studyId, TABLES);
  const {
    stale,
    revision: _,
    ...parts
  } = await resultsOf(app, { studyId, reference: null }, PARTS);
  const { name, title, intent, reference } = study.meta;
  const results: ReportedResults = {
    study: { name, title, intent, reference, alpha: DEFAULT_ALPHA, seed: DEFAULT_SEED },
    ...parts,
  };
  return { context: openReport(study, results), isStale: stale.length > 0 };
}

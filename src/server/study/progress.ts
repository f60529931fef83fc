import {
  checklist,
  guideProgress,
  STATIONS,
  type GuideKey,
  type StationKey,
  type Step,
  type StudyWork,
} from '../../core/answers/checklist';
import {
  countProgress,
  findStudy,
  type Database,
  type ProgressCounts,
  type StudyRecord,
} from '../../data';
import type { App } from '../app';

/** What is done and what is due at a station. */
export interface Progress {
  key: StationKey;
  title: string;
  done: number;
  due: number;
}

/** The label of a study that somebody learns with: its pages show the guide. */
const PRACTICE = 'practice';

/** How far a study has come. */
export interface StudyProgress {
  stations: Progress[];
  /** The steps from the question to the report. */
  steps: Step[];
  /** Which steps of the guide are done; null where the study is not for practice. */
  guide: Record<GuideKey, boolean> | null;
}

/** Counts of the studies asked for last: they hold as long as the study's revision does. */
const counted = new Map<string, { revision: string; counts: ProgressCounts }>();
const MOST_COUNTED = 200;

async function countsOf(db: Database, record: StudyRecord): Promise<ProgressCounts> {
  const { study_id: id, revision } = record;
  const known = counted.get(id);
  if (known?.revision === revision) return known.counts;
  const counts = await countProgress(db, id);
  counted.delete(id);
  counted.set(id, { revision, counts });
  const [oldest] = counted.keys();
  if (counted.size > MOST_COUNTED && oldest !== undefined) counted.delete(oldest);
  return counts;
}

/** What is known of a study's work. */
async function workOf(db: Database, record: StudyRecord): Promise<StudyWork> {
  const counts = await countsOf(db, record);
  const { accuracy_mm, time_pct } = record.smallest_difference;
  return {
    hasQuestion: record.question !== null && record.question !== '',
    hasReference: record.reference !== null,
    hasDifference: accuracy_mm != null || time_pct != null,
    contenders: counts.contenders,
    artefacts: counts.artefacts,
    artefactsPlanned: counts.artefacts_planned,
    dimensions: counts.dimensions,
    zones: counts.zones,
    prints: counts.prints,
    printsPlanned: counts.prints_planned,
    readings: counts.cells_measured,
    readingsNeeded: counts.cells_needed,
    zonesInspected: counts.zones_inspected,
    zonesNeeded: counts.zones_needed,
    needsScorecard: record.intent !== 'sweep' && record.intent !== 'before-after',
    hasScorecard: record.scorecard !== null,
    answers: counts.answers,
    hasDisclosure: (record.report?.disclosure ?? '') !== '',
    published: counts.published,
  };
}

/** What is done and due at each station: the steps there, added up. */
const progressIn = (steps: readonly Step[]): Progress[] =>
  STATIONS.map((station) => {
    const here = steps.filter((step) => step.station === station.key);
    const sum = (of: (step: Step) => number) => here.reduce((all, step) => all + of(step), 0);
    return { ...station, done: sum(({ done }) => done), due: sum(({ due }) => due) };
  });

/** How far a study has come, from its question to its report. */
export async function progressOf(db: Database, record: StudyRecord): Promise<StudyProgress> {
  const work = await workOf(db, record);
  const steps = checklist(work);
  const isPractice = record.labels.includes(PRACTICE);
  return {
    stations: progressIn(steps),
    steps,
    guide: isPractice ? guideProgress(work, record.archived_at !== null) : null,
  };
}

/** How far a study has come. @throws NotFoundError */
export const studyProgress = async ({ db }: App, studyId: string): Promise<StudyProgress> =>
  progressOf(db, await findStudy(db, studyId));

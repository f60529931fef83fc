import { countProgress, type Database, type ProgressCounts, type StudyRecord } from '../../data';

/** The stations of a study, in the order of the work. */
export const STATIONS = [
  { key: 'question', title: 'Question' },
  { key: 'line-up', title: 'Line-up' },
  { key: 'plan', title: 'Plan' },
  { key: 'runs', title: 'Runs' },
  { key: 'measure', title: 'Measure' },
  { key: 'inspect', title: 'Inspect' },
  { key: 'results', title: 'Results' },
  { key: 'report', title: 'Report' },
] as const;

export type StationKey = (typeof STATIONS)[number]['key'];

/** What is done and what is due at a station. */
export interface Progress {
  key: StationKey;
  title: string;
  done: number;
  due: number;
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

/** Counts what is done and due at each station of a study. */
export async function progressOf(db: Database, record: StudyRecord): Promise<Progress[]> {
  const counts = await countsOf(db, record);
  const smallest = record.smallest_difference;
  const questions = [
    record.question !== null && record.question !== '',
    record.reference !== null,
    smallest.accuracy_mm != null || smallest.time_pct != null,
  ];
  const answered = [
    counts.cells_measured > 0,
    counts.zones_inspected > 0,
    counts.prints > 0,
    counts.prints > 0,
    // The answer itself: a card that weighs them.
    record.scorecard !== null,
  ];
  const reported = [
    counts.answers > 0,
    (record.report?.disclosure ?? '') !== '',
    counts.published > 0,
  ];
  const figures: Record<StationKey, readonly [number, number]> = {
    question: [questions.filter(Boolean).length, questions.length],
    'line-up': [counts.contenders, Math.max(2, counts.contenders)],
    plan: [counts.artefacts_planned, counts.artefacts],
    runs: [counts.prints, counts.prints_planned],
    measure: [counts.cells_measured, counts.cells_needed],
    inspect: [counts.zones_inspected, counts.zones_needed],
    results: [answered.filter(Boolean).length, answered.length],
    report: [reported.filter(Boolean).length, reported.length],
  };
  return STATIONS.map((station) => {
    const [done, due] = figures[station.key];
    return { ...station, done, due };
  });
}

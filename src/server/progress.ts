import { countProgress, type Database, type StudyRecord } from '../data';

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

/** What is done and what is owed at a station. */
export interface Progress {
  key: StationKey;
  title: string;
  done: number;
  owed: number;
}

/** Counts what is done and owed at each station of a study. */
export async function progressOf(db: Database, record: StudyRecord): Promise<Progress[]> {
  const counts = await countProgress(db, record.study_id);
  const smallest = record.smallest_difference;
  const questions = [
    record.question !== null && record.question !== '',
    record.reference !== null,
    smallest.accuracy_mm != null || smallest.time_pct != null,
  ];
  const answered = [counts.cells_measured > 0, counts.prints > 0, counts.prints > 0];
  const figures: Record<StationKey, readonly [number, number]> = {
    question: [questions.filter(Boolean).length, questions.length],
    'line-up': [counts.contenders, Math.max(2, counts.contenders)],
    plan: [counts.artefacts_printed, counts.artefacts],
    runs: [counts.prints, counts.prints_planned],
    measure: [counts.cells_measured, counts.cells_owed],
    inspect: [counts.zones_inspected, counts.zones_owed],
    results: [answered.filter(Boolean).length, 8],
    report: [0, 1],
  };
  return STATIONS.map((station) => {
    const [done, owed] = figures[station.key];
    return { ...station, done, owed };
  });
}

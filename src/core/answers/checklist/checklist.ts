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

/** What is known of a study's work; counts are of whole things. */
export interface StudyWork {
  hasQuestion: boolean;
  hasReference: boolean;
  /** Whether a smallest difference of accuracy or print time is stated. */
  hasDifference: boolean;
  contenders: number;
  artefacts: number;
  /** Artefacts that are planned, or printed without a plan. */
  artefactsPlanned: number;
  dimensions: number;
  zones: number;
  prints: number;
  printsPlanned: number;
  readings: number;
  readingsNeeded: number;
  zonesInspected: number;
  zonesNeeded: number;
  /** Whether a scorecard answers the question; a sweep and a before–after study have answers of their own. */
  needsScorecard: boolean;
  hasScorecard: boolean;
  /** Sentences of the report that answer the question. */
  answers: number;
  hasDisclosure: boolean;
  /** Reports that are published and not withdrawn. */
  published: number;
}

/** What a step is about. What has no artefact yet needs another step than what has no plan yet. */
export type StepKey =
  | 'question'
  | 'difference'
  | 'reference'
  | 'contenders'
  | 'artefact'
  | 'plan'
  | 'prints'
  | 'features'
  | 'readings'
  | 'zones'
  | 'evidence'
  | 'scorecard'
  | 'answer'
  | 'disclosure'
  | 'publish';

/** One step of a study. It is done once `done` reaches a `due` above 0; with 0 due it comes later. */
export interface Step {
  key: StepKey;
  station: StationKey;
  done: number;
  due: number;
}

export type StepState = 'done' | 'open' | 'later';

export const stepState = ({ done, due }: Step): StepState => {
  if (due === 0) return 'later';
  return done >= due ? 'done' : 'open';
};

const FEWEST_CONTENDERS = 2;

/** The steps of a study from its question to its report, in order, with what is done of each. */
export function checklist(work: StudyWork): Step[] {
  const step = (station: StationKey, key: StepKey, done: number | boolean, due = 1): Step => ({
    key,
    station,
    done: Number(done),
    due,
  });
  // A part without dimensions and zones can neither be measured nor inspected.
  const isBare = work.artefacts > 0 && work.dimensions + work.zones === 0;
  return [
    step('question', 'question', work.hasQuestion),
    step('question', 'difference', work.hasDifference),
    step('question', 'reference', work.hasReference),
    step('line-up', 'contenders', work.contenders, Math.max(FEWEST_CONTENDERS, work.contenders)),
    work.artefacts === 0
      ? step('plan', 'artefact', false)
      : step('plan', 'plan', work.artefactsPlanned, work.artefacts),
    step('runs', 'prints', work.prints, work.printsPlanned),
    isBare
      ? step('measure', 'features', false)
      : step('measure', 'readings', work.readings, work.readingsNeeded),
    step('inspect', 'zones', work.zonesInspected, work.zonesNeeded),
    step('results', 'evidence', work.prints > 0 && work.readings + work.zonesInspected > 0),
    ...(work.needsScorecard ? [step('results', 'scorecard', work.hasScorecard)] : []),
    step('report', 'answer', work.answers > 0),
    step('report', 'disclosure', work.hasDisclosure),
    step('report', 'publish', work.published > 0),
  ];
}

/** The steps of the guided first study, in order. */
export const GUIDE = [
  'question',
  'difference',
  'contenders',
  'reference',
  'part',
  'plan',
  'prints',
  'readings',
  'verdict',
  'close',
] as const;
export type GuideKey = (typeof GUIDE)[number];

/** So often each part is printed in the guided study: two would give an interval too wide to read. */
export const GUIDE_REPEATS = 3;

/**
 * How far a guided study has come: whether each of its ten steps is done. A step is read off the study
 * itself: the guide always shows the next step that is open, whatever else was entered.
 *
 * @param isArchived whether the person has put the study away
 */
export function guideProgress(work: StudyWork, isArchived: boolean): Record<GuideKey, boolean> {
  const { contenders, printsPlanned, readingsNeeded } = work;
  return {
    question: work.hasQuestion,
    difference: work.hasDifference,
    contenders: contenders >= FEWEST_CONTENDERS,
    reference: work.hasReference,
    part: work.dimensions > 0,
    plan: contenders > 0 && printsPlanned >= GUIDE_REPEATS * contenders,
    prints: printsPlanned > 0 && work.prints >= printsPlanned,
    readings: readingsNeeded > 0 && work.readings >= readingsNeeded,
    verdict: work.answers > 0,
    close: isArchived,
  };
}

import { figureWords } from '../../core/answers/figure-names';
import { contenderMarks, type StudyMeta } from '../../core/model/study';
import {
  beforeAfterSentence,
  describeGlance,
  describeScorecard,
  describeSweep,
} from '../../core/text/phrasing';
import { findStudy, listTables, metaOfRecord } from '../../data';
import type { App } from '../app';
import { figureNames } from '../study/figure-names';
import { resultsOf } from './results';

/** A study's answer so far. */
export interface StudyAnswer {
  /** One or two sentences. */
  text: string;
  /** What is too close to call; null where nothing is. */
  open: string | null;
  /** Whether newer evidence is being computed. */
  isStale: boolean;
}

/** How the study's figures and contenders are called. */
interface Names {
  nameOf: (contender: string) => string;
  labelOf: (figure: string) => string;
  currency: string;
}

/** The answer of a study so far, in one or two sentences. @throws NotFoundError */
export async function studyAnswer(app: App, studyId: string): Promise<StudyAnswer> {
  const { db } = app;
  const meta = metaOfRecord(await findStudy(db, studyId));
  const { contenders, machines, profiles } = await listTables(db, studyId, [
    'contenders',
    'machines',
    'profiles',
  ]);
  const marks = contenderMarks(contenders, machines, profiles);
  const nothing = (text: string): StudyAnswer => ({ text, open: null, isStale: false });
  if (marks.length === 0) return nothing('No contenders yet: add a machine to the line-up.');
  if (marks.length === 1) return nothing('One contender only: add another one to compare it with.');
  if (meta.reference === null) return nothing('No reference yet: choose one on Question.');
  const figures = await figureNames(app, studyId, meta.cost?.currency ?? '');
  const names: Names = {
    nameOf: (id) => {
      const mark = marks.find((one) => one.contender_id === id);
      return mark ? `${mark.machineName} ${mark.variant}` : id;
    },
    labelOf: (key) => figureWords(key, figures).label,
    currency: figures.currency,
  };
  if (meta.intent === 'sweep') return answerOfSweep(app, studyId, names);
  if (meta.intent === 'before-after') return answerOfChange(app, studyId, meta);
  return meta.scorecard
    ? answerOfCard(app, studyId, meta.scorecard.name ?? 'this study', names)
    : answerOfGlance(app, studyId, meta.reference, names);
}

async function answerOfSweep(app: App, studyId: string, { labelOf }: Names): Promise<StudyAnswer> {
  const { sweep, stale } = await resultsOf(app, { studyId, reference: null }, ['sweep']);
  const isStale = stale.length > 0;
  if (!sweep) return { text: 'The steps of the sweep are not set yet.', open: null, isStale };
  const [first = '', ...rest] = describeSweep(sweep, labelOf);
  const [gain] = rest.slice(-1);
  return { text: [first, gain].filter(Boolean).join(' '), open: null, isStale };
}

async function answerOfChange(app: App, studyId: string, meta: StudyMeta): Promise<StudyAnswer> {
  const { pairs, accuracy, stale } = await resultsOf(app, { studyId, reference: null }, [
    'pairs',
    'accuracy',
  ]);
  const [pair = null] = pairs.accuracy_mm ?? [];
  const printsOf = (id: string | undefined) => accuracy?.[id ?? '']?.prints ?? 0;
  const prints = {
    before: printsOf(meta.reference ?? undefined),
    after: printsOf(pair?.contender),
  };
  const text = beforeAfterSentence(pair, prints, meta.smallest_difference.accuracy_mm ?? null);
  return { text, open: null, isStale: stale.length > 0 };
}

async function answerOfCard(
  app: App,
  studyId: string,
  use: string,
  { nameOf, labelOf, currency }: Names,
): Promise<StudyAnswer> {
  const { scorecard, stale } = await resultsOf(app, { studyId, reference: null }, ['scorecard']);
  const isStale = stale.length > 0;
  if (!scorecard) return { text: 'The scorecard cannot be computed yet.', open: null, isStale };
  const sentences = describeScorecard(scorecard, use, nameOf, labelOf, currency);
  return { text: sentences.slice(0, 2).join(' '), open: null, isStale };
}

async function answerOfGlance(
  app: App,
  studyId: string,
  reference: string,
  { nameOf, labelOf }: Names,
): Promise<StudyAnswer> {
  const { differences, stale } = await resultsOf(app, { studyId, reference: null }, [
    'differences',
  ]);
  const keys = Object.keys(differences).filter((key) => !key.startsWith('photo:'));
  const figures = keys.map((key) => ({ label: labelOf(key), rows: differences[key] ?? [] }));
  const { said, open } = describeGlance(nameOf(reference), figures, nameOf);
  const isPrinted = figures.some(({ rows }) => rows.length > 0);
  const text = said.length > 0 ? said.slice(0, 2).join(' ') : NOTHING_FOUND[Number(isPrinted)];
  return {
    text: text ?? '',
    open: open.length > 0 ? `${open.slice(0, 2).join('; ')}` : null,
    isStale: stale.length > 0,
  };
}

const NOTHING_FOUND = ['No evidence yet.', 'No difference that matters has been shown so far.'];

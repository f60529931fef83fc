import type { PairRow } from '../../core/statistics/compare';
import type { Fairness } from '../../core/answers/fairness';
import { DEFAULT_ALPHA, needsOf, type EvaluateTask } from '../../core/answers/results';
import type { CriterionEvidence } from '../../core/answers/scorecard';
import {
  columnWords,
  smallestDifference,
  type TableName,
  isTableName,
} from '../../core/model/study';
import { describeHeadToHead, describePanel } from '../../core/text/phrasing';
import { FIGURE_GROUPS, figureWords, type FigureWords } from '../../core/answers/figure-names';
import { listRowsBy, loadSentStudy, rowOrNull, type Stored } from '../../data';
import type { App } from '../app';
import { revealedResults } from '../panels';
import { figureNames } from '../study/figure-names';
import { resultsOf } from './results';
import type { StudyFrame } from '../study/frame';

/** One figure of two contenders. */
export interface DuelFigure {
  key: string;
  words: FigureWords;
  own: CriterionEvidence | null;
  other: CriterionEvidence | null;
  /** Own less other, where there is a test of it. */
  row: PairRow | null;
  /** The smallest difference of interest, in the row's unit. */
  delta: number | null;
}

/** Something in which the two contenders are not alike. */
export interface DuelFact {
  what: string;
  own: string | null;
  other: string | null;
}

/** One contender against one other. */
export interface HeadToHead {
  said: string[];
  figures: DuelFigure[];
  facts: DuelFact[];
  fairness: Fairness[];
  /** What panels found that showed nobody but these two: whether people can tell them apart. */
  blind: { aspect: string; said: string[] }[];
  /** By artefact: what a good part costs with each. */
  cost: { artefact: string; own: number | null; other: number | null }[];
}

/** What of a machine is compared; what is not known of either is left out. */
const MACHINE_FACTS = [
  'name',
  'maker',
  'kinematics',
  'build_x_mm',
  'build_y_mm',
  'build_z_mm',
  'nozzle_mm',
  'claimed_speed_mm_s',
  'claimed_accel_mm_s2',
  'max_flow_mm3_s',
  'price_list',
  'price_paid',
  'currency',
  'obtained',
  'firmware',
] as const;

/**
 * Compares two contenders of a study in everything, the second in the place of the reference.
 *
 * @param reference whom the study's pages compare everybody with
 */
export async function headToHead(
  app: App,
  frame: StudyFrame,
  contender: string,
  other: string,
  reference: string | null,
): Promise<HeadToHead> {
  const { studyId, meta, marks } = frame;
  const [parts, differences, names, facts, panels] = await Promise.all([
    resultsOf(app, { studyId, reference: other }, ['criteria', 'fairness_items', 'cost']),
    differencesOfPair(app, studyId, contender, other, reference),
    figureNames(app, studyId, meta.cost?.currency ?? ''),
    factsOf(app, studyId, contender, other),
    revealedResults({ db: app.db, studyId }, other),
  ]);
  const figures = Object.entries(parts.criteria)
    .map(([key, evidence]): DuelFigure => {
      const [own, theirs] = [evidence[contender] ?? null, evidence[other] ?? null];
      const row = differences[key]?.[0] ?? null;
      const delta = smallestDifference(meta.smallest_difference, key);
      return { key, words: figureWords(key, names), own, other: theirs, row, delta };
    })
    .filter(({ own, other: theirs }) => own !== null || theirs !== null)
    .sort(
      (a, b) =>
        FIGURE_GROUPS.indexOf(a.words.group) - FIGURE_GROUPS.indexOf(b.words.group) ||
        Number(b.row !== null) - Number(a.row !== null),
    );
  const nameOf = (id: string) => {
    const mark = marks.find((one) => one.contender_id === id);
    return mark ? `${mark.machineName} ${mark.variant}` : id;
  };
  const artefacts = [contender, other].flatMap((id) => Object.keys(parts.cost[id] ?? {}));
  return {
    said: describeHeadToHead(
      nameOf(contender),
      nameOf(other),
      figures.flatMap(({ words, row }) => (row ? [{ label: words.label, row }] : [])),
    ),
    figures,
    facts,
    fairness: parts.fairness_items.filter((row) => row.contender === contender),
    blind: panels
      .filter(
        ({ shown }) => shown.length === 2 && [contender, other].every((id) => shown.includes(id)),
      )
      .map(({ aspect, panel, reference: against, isWithheld }) => ({
        aspect,
        said: describePanel(panel, against, nameOf, DEFAULT_ALPHA, isWithheld),
      })),
    cost: [...new Set(artefacts)].map((id) => ({
      artefact: names.artefacts[id] ?? id,
      own: parts.cost[contender]?.[id]?.per_good_part ?? null,
      other: parts.cost[other]?.[id]?.per_good_part ?? null,
    })),
  };
}

/** Every figure that has a test, tested as on every other page; made off the main thread. */
async function differencesOfPair(
  app: App,
  studyId: string,
  contender: string,
  other: string,
  reference: string | null,
) {
  const { db, threads } = app;
  const tables = [...needsOf('differences')].filter((part): part is TableName => isTableName(part));
  const { study } = await loadSentStudy(db, studyId, tables);
  const task: EvaluateTask = {
    study,
    options: { reference: other },
    pair: { contender, other, reference },
  };
  const outcome = await threads.run(task);
  if (!('differences' in outcome)) throw new Error('the thread compared nothing');
  return outcome.differences;
}

/** What differs between the machines and the profiles of two contenders. */
async function factsOf(
  app: App,
  studyId: string,
  contender: string,
  other: string,
): Promise<DuelFact[]> {
  const { db } = app;
  const side = async (contender_id: string) => {
    const row = await rowOrNull(db, studyId, 'contenders', { contender_id });
    if (!row) return null;
    const { machine_id, profile_id, change } = row;
    const [machine, profile, settings] = await Promise.all([
      rowOrNull(db, studyId, 'machines', { machine_id }),
      rowOrNull(db, studyId, 'profiles', { profile_id }),
      listRowsBy(db, studyId, 'profile_settings', 'profile_id', profile_id),
    ]);
    return { machine, profile, change, settings: settingsOf(settings) };
  };
  const [own, theirs] = await Promise.all([side(contender), side(other)]);
  if (!own || !theirs) return [];
  const text = (value: string | number | null | undefined) =>
    value == null ? null : String(value);
  const keys = [...new Set([...own.settings.keys(), ...theirs.settings.keys()])].sort();
  const rows: DuelFact[] = [
    ...MACHINE_FACTS.map((column) => ({
      what: columnWords(column === 'name' ? 'machine_id' : column),
      own: text(own.machine?.[column]),
      other: text(theirs.machine?.[column]),
    })),
    { what: 'profile', own: text(own.profile?.name), other: text(theirs.profile?.name) },
    { what: 'what was changed', own: own.change, other: theirs.change },
    ...keys.map((key) => ({
      what: columnWords(key),
      own: own.settings.get(key) ?? null,
      other: theirs.settings.get(key) ?? null,
    })),
  ];
  return rows.filter((row) => row.own !== row.other);
}

const settingsOf = (rows: readonly Stored<'profile_settings'>[]): ReadonlyMap<string, string> =>
  new Map(rows.map(({ key, value }) => [key, value]));

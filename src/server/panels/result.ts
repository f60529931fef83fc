import {
  isRightAnswer,
  paceFrom,
  panelHabits,
  panelsOfAll,
  type Pace,
  type Panel,
  type PanelHabits,
} from '../../core/measures/panels';
import { DEFAULT_ALPHA } from '../../core/answers/results';
import { seededDraws, shuffled } from '../../core/statistics/stats';
import { indexStudy, type Row } from '../../core/model/study';
import { findPanelRun, loadStudy, type Panelist } from '../../data';
import { countedAnswers } from './answers';

/** What a panel found, and how its judges answered. */
export interface PanelResult extends Pace {
  panel: Panel;
  habits: PanelHabits;
  /** The contender that the others stand against; in a blind result its letter. */
  reference: string | null;
  /** Whose specimens were shown; in a blind result their letters. */
  shown: string[];
}

/** A panel whose names are said. */
export interface RevealedPanel extends PanelResult {
  panel_id: string;
  aspect: string;
}

const TABLES = [
  'machines',
  'profiles',
  'contenders',
  'artefacts',
  'prints',
  'specimens',
  'panels',
  'ballots',
  'ballot_times',
  'panel_notes',
] as const;

/** Letters that contenders are called by as long as their names are not said: none of a badge. */
const LETTERS = ['P', 'Q', 'R', 'S', 'T', 'U', 'V', 'W', 'X', 'Y', 'Z'];

/** The results of panels whose ballots are the study's. */
export async function revealedResults(
  of: Panelist,
  asked: string | null,
): Promise<RevealedPanel[]> {
  const { study } = await loadStudy(of.db, of.studyId, TABLES);
  const reference = asked ?? study.meta.reference;
  const { panels, ballots, ballot_times } = study.tables;
  return panels.map((row) => {
    const own = ballots.filter((one) => one.panel_id === row.panel_id);
    const seconds = ballot_times
      .filter((one) => one.panel_id === row.panel_id)
      .map((one) => one.seconds);
    const only = { ...study, tables: { ...study.tables, panels: [row], ballots: own } };
    const { panel_id, aspect } = row;
    return { panel_id, aspect, ...resultOf(only, row, own, reference, seconds) };
  });
}

/**
 * What a panel has found before its ballots are the study's.
 *
 * @param isBlind whether contenders are called by letters that say nothing
 */
export async function heldResult(
  of: Panelist,
  panelId: string,
  isBlind: boolean,
): Promise<PanelResult | null> {
  const { study } = await loadStudy(of.db, of.studyId, TABLES);
  const row = study.tables.panels.find((one) => one.panel_id === panelId);
  if (!row) return null;
  const { answers } = await countedAnswers(of, panelId);
  const ballots = answers.map(({ judge, items, choice, at }): Row<'ballots'> => ({
    panel_id: panelId,
    judge,
    item_1: items[0] ?? '',
    item_2: items[1] ?? '',
    item_3: items[2] ?? null,
    choice,
    at,
  }));
  const seconds = answers.flatMap((one) => one.seconds ?? []);
  if (!isBlind) {
    const only = { ...study, tables: { ...study.tables, panels: [row], ballots } };
    return resultOf(only, row, ballots, study.meta.reference, seconds);
  }
  const run = await findPanelRun(of, panelId);
  const called = lettersOf(ownersOf(study, ballots), run?.seed ?? 1);
  const name = (id: string) => called.get(id) ?? id;
  const prints = study.tables.prints.map((one) => ({
    ...one,
    contender_id: name(one.contender_id),
  }));
  const blind = row.target === null ? row : { ...row, target: name(row.target) };
  const only = { ...study, tables: { ...study.tables, prints, panels: [blind], ballots } };
  const [first = null] = [...called.values()].sort();
  return resultOf(only, blind, ballots, first, seconds);
}

type Loaded = Awaited<ReturnType<typeof loadStudy>>['study'];

function resultOf(
  study: Loaded,
  row: Row<'panels'>,
  ballots: readonly Row<'ballots'>[],
  wanted: string | null,
  seconds: readonly number[],
): PanelResult {
  const index = indexStudy(study);
  const inIt = [...ownersOf(study, ballots)];
  // Where the study's reference was not among them, the first one is what the others stand against.
  const reference =
    inIt.length === 0 || inIt.includes(wanted ?? '') ? wanted : (inIt.sort()[0] ?? null);
  const panel = panelsOfAll(index, reference, DEFAULT_ALPHA)[row.panel_id];
  if (!panel) throw new Error('the panel is not in its study');
  return {
    panel,
    reference,
    shown: inIt,
    habits: panelHabits(
      row.kind,
      ballots,
      DEFAULT_ALPHA,
      row.kind === 'paired' ? null : (one) => isRightAnswer(index, row, one),
    ),
    ...paceFrom(
      seconds,
      study.tables.panel_notes.some(
        (one) => one.panel_id === row.panel_id && one.what === 'pace-checked',
      ),
    ),
  };
}

/** The contenders whose specimens were shown. */
function ownersOf({ tables }: Loaded, ballots: readonly Row<'ballots'>[]): Set<string> {
  const prints = new Map(tables.prints.map((one) => [one.print_id, one.contender_id]));
  const owner = new Map(tables.specimens.map((one) => [one.specimen_id, prints.get(one.print_id)]));
  return new Set(
    ballots.flatMap((one) =>
      [one.item_1, one.item_2, one.item_3].flatMap((id) => owner.get(id ?? '') ?? []),
    ),
  );
}

/** A letter for every contender, in the panel's own random order. */
function lettersOf(owners: Iterable<string>, seed: number): Map<string, string> {
  const order = shuffled([...owners].sort(), seededDraws(seed));
  return new Map(order.map((id, at) => [id, LETTERS[at] ?? `Z${at}`]));
}

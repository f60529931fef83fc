import { ballotsNeeded, couplesOf, usualAim, type PanelPlan } from '../../core/measures/panels';
import { DEFAULT_ALPHA } from '../../core/answers/results';
import type { PanelKind } from '../../core/model/study';
import {
  findPanelRun,
  findStudy,
  listPanelCards,
  listPanelItems,
  listPanelJudges,
  listRowsBy,
  listSpecimenFacts,
  listTables,
  questionsOfPanel,
  type Panelist,
  type Stored,
} from '../../data';
import type { App } from '../app';
import { hasEnded } from './closing';
import { heldResult, revealedResults, type PanelResult } from './result';
import { planOf } from './held';

/** How far a panel has come. `elsewhere`: its ballots came with a package. */
export type PanelState = 'draft' | 'open' | 'closed' | 'revealed' | 'elsewhere';

/** A panel in the list of a study. */
export interface PanelLine {
  panel_id: string;
  kind: PanelKind;
  aspect: string;
  state: PanelState;
  judges: number;
  wanted: number | null;
  ballots: number;
}

/** A judge as the organiser sees them: how far, not what. */
export interface SeenJudge {
  name: string;
  number: number;
  state: 'waiting' | 'at it' | 'done' | 'stopped' | 'left';
  answered: number;
  of: number;
}

/** A specimen of a panel as the organiser sees it. */
export interface SeenItem {
  specimen_id: string;
  code: string;
  contender_id: string;
  path: string | null;
  /** How often it was shown and answered on; null before the names are said: it would tell whose is whose. */
  seen: number | null;
  isOut: boolean;
}

/** One panel, with all that its page shows. */
export interface PanelPage {
  panel: Stored<'panels'>;
  setup: Stored<'panel_setups'> | null;
  state: PanelState;
  /** Path of the link for judges; null where nobody comes in. */
  link: string | null;
  items: SeenItem[];
  judges: SeenJudge[];
  /** So many judges come in by the open link from one address; null where it is not held here. */
  perAddress: number | null;
  /** How many cards were made, each for one judge. */
  cards: number;
  notes: Stored<'panel_notes'>[];
  ballots: number;
  /** By how much, at most, one of two contenders stood left more often than the other. */
  leftMore: number;
  /** Ballots of two contenders when all is said, and how many are needed to find what was aimed at. */
  planned: number;
  needed: number | null;
  couples: number;
  /** The result; blind until it is revealed; null as long as the panel is open. */
  result: PanelResult | null;
}

function stateOf(setup: Stored<'panel_setups'> | undefined, isHeld: boolean): PanelState {
  if (!setup) return 'elsewhere';
  if (setup.revealed_at !== null) return 'revealed';
  if (setup.opened_at !== null && !isHeld) return 'elsewhere';
  if (setup.closed_at !== null) return 'closed';
  return setup.opened_at === null ? 'draft' : 'open';
}

/** The panels of a study. */
export async function panelLines(app: App, studyId: string): Promise<PanelLine[]> {
  const { db } = app;
  await findStudy(db, studyId);
  const { panels, panel_setups, ballots } = await listTables(db, studyId, [
    'panels',
    'panel_setups',
    'ballots',
  ]);
  const lines: PanelLine[] = [];
  for (const { panel_id, kind, aspect } of panels) {
    const setup = panel_setups.find((one) => one.panel_id === panel_id);
    const of = { db, studyId };
    const state = stateOf(setup, (await findPanelRun(of, panel_id)) !== null);
    const own = ballots.filter((one) => one.panel_id === panel_id);
    const isHere = state === 'open' || state === 'closed';
    const judges = isHere
      ? (await listPanelJudges(of, panel_id)).filter((one) => one.answered_at !== null).length
      : new Set(own.map((one) => one.judge)).size;
    const answered = isHere
      ? (await questionsOfPanel(of, panel_id)).filter((one) => one.choice !== null).length
      : own.length;
    lines.push({
      panel_id,
      kind,
      aspect,
      state,
      judges,
      wanted: setup?.judges ?? null,
      ballots: answered,
    });
  }
  return lines;
}

/** One panel. @param reference whom the others stand against, where somebody asked for another than the study's */
export async function panelPage(
  app: App,
  studyId: string,
  panelId: string,
  reference: string | null = null,
): Promise<PanelPage | null> {
  const { db } = app;
  const of = { db, studyId };
  await findStudy(db, studyId);
  const [panel] = await listRowsBy(db, studyId, 'panels', 'panel_id', panelId);
  if (!panel) return null;
  const [setup] = await listRowsBy(db, studyId, 'panel_setups', 'panel_id', panelId);
  const run = await findPanelRun(of, panelId);
  const state = stateOf(setup, run !== null);
  const own = state === 'revealed' || state === 'elsewhere';
  const judges = run ? await listPanelJudges(of, panelId) : [];
  const questions = run ? await questionsOfPanel(of, panelId) : [];
  const answered = questions.filter((one) => one.choice !== null);
  const { items, plan } = await itemsOf(of, panel, setup, state === 'revealed' ? answered : null);
  const ballots = own
    ? (await listRowsBy(db, studyId, 'ballots', 'panel_id', panelId)).length
    : answered.length;
  const aim = {
    ...usualAim(panel.kind, DEFAULT_ALPHA),
    ...(setup?.effect && { effect: setup.effect }),
  };
  const couples = plan ? couplesOf(plan).length : 0;
  return {
    panel,
    setup: setup ?? null,
    state,
    items,
    ballots,
    couples,
    link: run?.is_open && state === 'open' ? `/judge/${run.link}` : null,
    perAddress: run?.per_address ?? null,
    cards: run ? (await listPanelCards(of, panelId)).length : 0,
    judges: judges.map((judge) => {
      const asked = questions.filter((one) => one.judge_id === judge.judge_id);
      const done = asked.filter((one) => one.choice !== null).length;
      const isLeft = judge.ended_at === null && hasEnded(judge);
      return {
        name: judge.name,
        number: judge.number,
        answered: done,
        of: asked.length,
        state:
          judge.begun_at === null
            ? 'waiting'
            : done === asked.length
              ? 'done'
              : judge.ended_at !== null
                ? 'stopped'
                : isLeft
                  ? 'left'
                  : 'at it',
      } as const;
    }),
    notes: await listRowsBy(db, studyId, 'panel_notes', 'panel_id', panelId),
    leftMore: leftMoreOf(
      answered,
      new Map(items.map((one) => [one.specimen_id, one.contender_id])),
    ),
    planned: plan && setup && couples > 0 ? (setup.judges * setup.questions) / couples : 0,
    needed: ballotsNeeded(panel.kind, aim),
    result:
      state === 'closed'
        ? await heldResult(of, panelId, true)
        : own
          ? ((await revealedResults(of, reference)).find((one) => one.panel_id === panelId) ?? null)
          : null,
  };
}

async function itemsOf(
  of: Panelist,
  panel: Stored<'panels'>,
  setup: Stored<'panel_setups'> | undefined,
  answered: readonly { items: readonly string[] }[] | null,
): Promise<{ items: SeenItem[]; plan: PanelPlan | null }> {
  const items = setup ? await listPanelItems(of, panel.panel_id) : [];
  const facts = new Map(
    (await listSpecimenFacts(of.db, of.studyId)).map((one) => [one.specimen_id, one]),
  );
  const plan = setup && items.length > 0 ? await planOf(of, { panel, setup, items }, 1) : null;
  return {
    plan,
    items: items.map(({ specimen_id, path, taken_out_at }) => ({
      specimen_id,
      path,
      isOut: taken_out_at !== null,
      code: facts.get(specimen_id)?.code ?? specimen_id,
      contender_id: facts.get(specimen_id)?.contender_id ?? '',
      seen: answered?.filter((one) => one.items.includes(specimen_id)).length ?? null,
    })),
  };
}

function leftMoreOf(
  answered: readonly { items: readonly string[] }[],
  owner: ReadonlyMap<string, string>,
): number {
  const surplus = new Map<string, number>();
  for (const { items } of answered) {
    if (items.length !== 2) continue;
    const [left = '', right = ''] = items.map((item) => owner.get(item) ?? '');
    const [key, change] = left < right ? [`${left} ${right}`, 1] : [`${right} ${left}`, -1];
    surplus.set(key, (surplus.get(key) ?? 0) + change);
  }
  return Math.max(0, ...[...surplus.values()].map(Math.abs));
}

/** A panel's sheets: what lies where at each place, for the one who lays it out. */
export interface PanelSheets {
  aspect: string;
  places: { number: number; questions: { codes: string[]; items: string[] }[] }[];
}

/** What is laid out for the judges of a panel of parts; null where it shows photos, or is not open. */
export async function panelSheets(
  app: App,
  studyId: string,
  panelId: string,
): Promise<PanelSheets | null> {
  const of = { db: app.db, studyId };
  const page = await panelPage(app, studyId, panelId);
  if (page?.setup?.shown_as !== 'parts' || page.link === null) return null;
  const code = new Map(page.items.map((one) => [one.specimen_id, one.code]));
  const questions = await questionsOfPanel(of, panelId);
  return {
    aspect: page.panel.aspect,
    places: (await listPanelJudges(of, panelId)).map(({ judge_id, number }) => ({
      number,
      questions: questions
        .filter((one) => one.judge_id === judge_id)
        .map(({ codes, items }) => ({ codes, items: items.map((item) => code.get(item) ?? item) })),
    })),
  };
}

/** The cards of a panel, for those who hold it; null where there is no such panel. */
export async function panelCards(
  app: App,
  studyId: string,
  panelId: string,
): Promise<{ aspect: string; cards: { number: number; path: string }[] } | null> {
  const { db } = app;
  const [panel] = await listRowsBy(db, studyId, 'panels', 'panel_id', panelId);
  if (!panel) return null;
  const cards = await listPanelCards({ db, studyId }, panelId);
  return {
    aspect: panel.aspect,
    cards: cards.map(({ number, link }) => ({ number, path: `/judge/${link}` })),
  };
}

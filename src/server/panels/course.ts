import { randomInt, randomUUID } from 'node:crypto';
import { v7 as uuid } from 'uuid';
import * as z from 'zod';
import { questionsOf, type PanelPlan } from '../../core/measures/panels';
import { twoDigits, type Row } from '../../core/model/study';
import {
  findRow,
  bookBallots,
  findPanelRun,
  insertPanelCards,
  insertPanelJudge,
  insertPanelRun,
  insertRow,
  listPanelCards,
  listPanelItems,
  listPanelJudges,
  setPanelPicture,
  setPerAddress,
  takeOutItem,
  updateRow,
  writeStudy,
  type Write,
} from '../../data';
import { newToken } from '../access/tokens';
import type { App } from '../app';
import { RequestError } from '../http/problem';
import { countedAnswers } from './answers';
import { makePictures } from './pictures';
import { heldResult, type PanelResult } from './result';
import { closeIfDue, closePanel, now } from './closing';
import { findHeld, planOf, type Held } from './held';
import { planned } from './setup';

/**
 * Opens a panel: cuts its photos, draws its order, and makes the link that judges come in by.
 *
 * @throws RequestError where it cannot be held as it is planned
 */
async function openPanel(
  app: App,
  studyId: string,
  panelId: string,
  who: string | null,
): Promise<void> {
  const { db } = app;
  const held = await findHeld({ db, studyId }, panelId);
  checkDraft(held);
  const plan = await planOf({ db, studyId }, held, randomInt(1, 2 ** 31 - 1));
  planned(() => questionsOf(plan, 1));
  const { closes_at } = held.setup;
  if (closes_at !== null && Date.parse(closes_at) <= Date.now()) {
    throw new RequestError(
      422,
      'The panel would be closed before it begins: set a later date, or none.',
    );
  }
  // Photos are cut before anything is locked: it takes as long as they are large.
  const pictures = held.setup.shown_as === 'photos' ? await makePictures(app, studyId, held) : null;
  await writeStudy(db, studyId, who, async (write) => {
    const again = await findHeld(write, panelId);
    checkDraft(again);
    if (again.setup.row_version !== held.setup.row_version) {
      throw new RequestError(409, 'The panel was changed by someone else. Check it, then open it.');
    }
    const key = { panel_id: panelId };
    await updateRow(write, 'panel_setups', key, { opened_at: now() }, held.setup.row_version);
    const run = { link: newToken(), seed: plan.seed, picture_bytes: pictures?.bytes ?? null };
    await insertPanelRun(write, panelId, run);
    for (const [specimen, sha256] of pictures?.contents ?? []) {
      await setPanelPicture(write, panelId, specimen, sha256);
    }
    // Parts are laid out before anybody comes: each place has its sheet.
    if (!pictures) await addPlaces(write, panelId, plan, held.setup.judges);
  });
}

function checkDraft({ setup }: Held): void {
  if (setup.opened_at !== null) throw new RequestError(409, 'The panel is open already.');
}

/** Adds judges, or places for them, up to a number, each with the questions that the order gives them. */
export async function addPlaces(
  write: Write,
  panelId: string,
  plan: PanelPlan,
  upTo: number,
): Promise<void> {
  const known = (await listPanelJudges(write, panelId)).length;
  if (known >= upTo) return;
  const orders = planned(() => questionsOf(plan, upTo));
  for (let number = known + 1; number <= upTo; number += 1) {
    const questions = (orders[number - 1] ?? []).map(({ items, codes, repeats }, place) => ({
      place,
      items,
      codes,
      asks_again: repeats,
      // All of it is random: an address does not even say when it was made.
      pictures: items.map(() => randomUUID()),
    }));
    const judge = { judge_id: uuid(), number, name: numbered(number) };
    await insertPanelJudge(write, panelId, judge, questions);
  }
}

/** What a judge is called who gives no initials. */
const numbered = (number: number): string => `J${twoDigits(number)}`;

const note = z.string().trim().min(1, 'say why').max(2000);

/** What can be done with a panel once it is planned. */
export const courseSchema = z.discriminatedUnion('do', [
  z.strictObject({ do: z.literal('open') }),
  z.strictObject({ do: z.literal('look'), note }),
  z.strictObject({ do: z.literal('end'), note }),
  z.strictObject({ do: z.literal('take-out'), specimen_id: z.string().max(64), note }),
  z.strictObject({ do: z.literal('check-pace'), note }),
  z.strictObject({ do: z.literal('make-cards') }),
  z.strictObject({ do: z.literal('set-per-address'), count: z.number().int().min(1).max(10_000) }),
  z.strictObject({ do: z.literal('reveal') }),
]);

export type PanelStep = z.infer<typeof courseSchema>;

/** Does what an organiser wants done with a panel. Whoever looks sees what it has found so far, without names. */
export async function takeStep(
  app: App,
  studyId: string,
  panelId: string,
  step: PanelStep,
  who: string | null,
): Promise<{ result: PanelResult | null }> {
  const { db } = app;
  if (step.do === 'open') await openPanel(app, studyId, panelId, who);
  else await goOn(app, studyId, panelId, step, who);
  return { result: step.do === 'look' ? await heldResult({ db, studyId }, panelId, true) : null };
}

function goOn(
  app: App,
  studyId: string,
  panelId: string,
  step: Exclude<PanelStep, { do: 'open' }>,
  who: string | null,
): Promise<void> {
  return writeStudy(app.db, studyId, who, async (write) => {
    // A panel that came with a package was held elsewhere, and is looked at all the same.
    if (step.do === 'check-pace') {
      await findRow(write.db, studyId, 'panels', { panel_id: panelId });
      await addNote(write, panelId, 'pace-checked', step.note);
      return;
    }
    const held = await findHeld(write, panelId);
    if (!(await findPanelRun(write, panelId)))
      throw new RequestError(409, 'The panel is not open yet.');
    if (held.setup.revealed_at !== null)
      throw new RequestError(409, 'The panel is revealed: it stays as it is.');
    const isClosed = await closeIfDue(write, held);
    if (step.do === 'reveal') {
      if (!isClosed)
        throw new RequestError(409, 'The panel is still open: its rule ends it, not its result.');
      return reveal(write, panelId);
    }
    if (step.do === 'make-cards') return makeCards(write, held);
    if (step.do === 'set-per-address') return setPerAddress(write, panelId, step.count);
    if (isClosed && step.do !== 'take-out')
      throw new RequestError(409, 'The panel has ended: reveal it.');
    if (step.do === 'take-out') return takeOut(write, held, step, isClosed);
    await addNote(write, panelId, step.do === 'look' ? 'looked' : 'ended-early', step.note);
    if (step.do === 'end') await closePanel(write, held, 'hand');
  });
}

/** Makes a card for every judge that is wanted; the open link lets nobody in from then on. */
async function makeCards(write: Write, { panel, setup }: Held): Promise<void> {
  const known = await listPanelCards(write, panel.panel_id);
  const numbers = Array.from(
    { length: Math.max(0, setup.judges - known.length) },
    (_, at) => known.length + at + 1,
  );
  const cards = numbers.map((number) => ({ link: newToken(), number }));
  await insertPanelCards(write, panel.panel_id, cards);
}

const addNote = (
  write: Write,
  panel_id: string,
  what: Row<'panel_notes'>['what'],
  text: string,
): Promise<unknown> =>
  insertRow(write, 'panel_notes', {
    panel_id,
    at: now(),
    what,
    operator: write.who,
    note: text,
  });

async function takeOut(
  write: Write,
  held: Held,
  { specimen_id, note: why }: Extract<PanelStep, { do: 'take-out' }>,
  isClosed: boolean,
): Promise<void> {
  const { panel_id } = held.panel;
  const item = held.items.find((one) => one.specimen_id === specimen_id);
  if (!item) throw new RequestError(404, 'There is no such specimen in the panel.');
  if (item.taken_out_at !== null) return;
  await takeOutItem(write, panel_id, specimen_id);
  const plan = await planOf(write, { ...held, items: await listPanelItems(write, panel_id) }, 1);
  // Once nobody is asked any more, nothing has to be left to ask.
  if (!isClosed) planned(() => questionsOf(plan, 1));
  await addNote(write, panel_id, 'taken-out', `${specimen_id}: ${why}`);
}

/** The names come in: what was said becomes evidence of the study. */
async function reveal(write: Write, panelId: string): Promise<void> {
  const { answers } = await countedAnswers(write, panelId);
  await bookBallots(write, panelId, answers);
  const { setup } = await findHeld(write, panelId);
  await updateRow(
    write,
    'panel_setups',
    { panel_id: panelId },
    { revealed_at: now() },
    setup.row_version,
  );
}

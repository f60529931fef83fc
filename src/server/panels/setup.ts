import * as z from 'zod';
import { checkPlan, idOfPanel, PanelPlanError } from '../../core/measures/panels';
import { MOST_QUESTIONS, TABLES, type Row } from '../../core/model/study';
import {
  deleteRow,
  listRows,
  listRowsBy,
  listSpecimenFacts,
  replacePanelItems,
  updateRow,
  writeStudy,
  type Write,
} from '../../data';
import type { App } from '../app';
import { findHeld, planOf, contenderName, type Held } from './held';
import { RequestError } from '../http/problem';
import { insertChecked } from '../rows';

const MOST_ITEMS = 200;
const setup = TABLES.panel_setups.row.shape;

/** A panel as somebody plans it: what is asked, what is shown, to how many. */
export const panelDraftSchema = z.strictObject({
  ...TABLES.panels.row.shape,
  // Without one it is named after its question.
  panel_id: TABLES.panels.row.shape.panel_id.nullable().default(null),
  // Judges read it on a phone.
  aspect: z.string().trim().min(1, 'must not be empty').max(200, 'is too long for a phone'),
  shown_as: setup.shown_as,
  names: setup.names,
  view: setup.view,
  light: setup.light,
  x_mm: setup.x_mm,
  y_mm: setup.y_mm,
  w_mm: setup.w_mm,
  h_mm: setup.h_mm,
  levels: setup.levels,
  judges: setup.judges,
  questions: setup.questions,
  effect: setup.effect,
  closes_at: setup.closes_at,
  asked_again: z.number().int().min(0).max(MOST_QUESTIONS).nullable().default(null),
  items: z
    .array(
      z.strictObject({
        specimen_id: TABLES.specimens.row.shape.specimen_id,
        path: TABLES.photos.row.shape.path.nullable().default(null),
      }),
    )
    .max(MOST_ITEMS),
});

/** A panel as it could be planned in the demo's first study. */
export const panelExample = {
  panel_id: 'smooth-front',
  kind: 'paired',
  aspect: 'On which one is the wall smoother?',
  artefact_id: 'echo-wall',
  target: null,
  shown_as: 'parts',
  names: 'numbers',
  judges: 12,
  questions: 1,
  effect: 0.65,
  items: [
    { specimen_id: 'K7-027', path: null },
    { specimen_id: 'K7-048', path: null },
  ],
};

export type PanelDraft = z.infer<typeof panelDraftSchema>;
type NamedDraft = PanelDraft & { panel_id: string };

/** Does what may find that a plan cannot be carried out. @throws RequestError 422 with what to do */
export function planned<Found>(work: () => Found): Found {
  try {
    return work();
  } catch (error) {
    if (error instanceof PanelPlanError) throw new RequestError(422, error.message);
    throw error;
  }
}

/** Plans a panel. @returns what it is named @throws RequestError where something of it cannot be */
export const addPanel = (
  app: App,
  studyId: string,
  draft: PanelDraft,
  who: string | null,
): Promise<{ panel_id: string }> =>
  writeStudy(app.db, studyId, who, async (write) => {
    const panel_id = draft.panel_id ?? (await freeId(write, draft.aspect));
    const { panel, setup: held } = rowsOf({ ...draft, panel_id });
    await insertChecked(write, 'panels', panel);
    await insertChecked(write, 'panel_setups', held);
    await keepItems(write, { ...draft, panel_id });
    return { panel_id };
  });

/** An id of a panel's question that no other panel of the study has. */
async function freeId({ db, studyId }: Write, aspect: string): Promise<string> {
  const taken = new Set((await listRows(db, studyId, 'panels')).map((row) => row.panel_id));
  return idOfPanel(aspect, taken);
}

/** Plans a panel anew, as long as nobody has judged. */
export const changePanel = (
  app: App,
  studyId: string,
  panelId: string,
  draft: PanelDraft,
  who: string | null,
): Promise<void> =>
  writeStudy(app.db, studyId, who, async (write) => {
    if (draft.panel_id !== null && draft.panel_id !== panelId) {
      throw new RequestError(422, 'A panel keeps its id.');
    }
    const before = await findHeld(write, panelId);
    checkNotOpened(before);
    const named = { ...draft, panel_id: panelId };
    const { panel, setup: held } = rowsOf(named);
    const key = { panel_id: panelId };
    await updateRow(write, 'panels', key, panel, before.panel.row_version);
    await updateRow(write, 'panel_setups', key, held, before.setup.row_version);
    await keepItems(write, named);
  });

/** Gives a panel up that was never opened. */
export const dropPanel = (
  app: App,
  studyId: string,
  panelId: string,
  who: string | null,
): Promise<void> =>
  writeStudy(app.db, studyId, who, async (write) => {
    const before = await findHeld(write, panelId);
    checkNotOpened(before);
    const key = { panel_id: panelId };
    await deleteRow(write, 'panel_setups', key, before.setup.row_version);
    await deleteRow(write, 'panels', key, before.panel.row_version);
  });

function checkNotOpened({ setup: held }: Held): void {
  if (held.opened_at === null) return;
  throw new RequestError(409, 'The panel was opened: what it asks and shows stays as it is.');
}

function rowsOf({ items: _, ...draft }: NamedDraft): {
  panel: Row<'panels'>;
  setup: Row<'panel_setups'>;
} {
  const { panel_id, kind, aspect, artefact_id, target, ...more } = draft;
  const isGuess = kind === 'guess';
  const own = TABLES.panel_setups.row.parse({
    panel_id,
    ...more,
    asked_again: more.asked_again || null,
  });
  const isOfPhotos = own.shown_as === 'photos';
  const bare = {
    view: null,
    light: null,
    x_mm: null,
    y_mm: null,
    w_mm: null,
    h_mm: null,
    levels: null,
  };
  return {
    panel: { panel_id, kind, aspect, artefact_id, target: isGuess ? target : null },
    setup: isOfPhotos ? { ...own, levels: own.levels ?? 'as-taken' } : { ...own, ...bare },
  };
}

/** Checks what a panel shows, and keeps it. */
async function keepItems(write: Write, draft: NamedDraft): Promise<void> {
  const { db, studyId } = write;
  const refuse = (message: string): never => {
    throw new RequestError(422, message);
  };
  const { artefact_id, view, light, shown_as } = draft;
  if (artefact_id === null) refuse('Say of which artefact the specimens are.');
  const facts = new Map(
    (await listSpecimenFacts(db, studyId)).map((one) => [one.specimen_id, one]),
  );
  const seen = new Set<string>();
  for (const { specimen_id, path } of draft.items) {
    const name = contenderName(facts.get(specimen_id)) ?? specimen_id;
    if (facts.get(specimen_id)?.artefact_id !== artefact_id)
      refuse(`${name} is no specimen of this artefact.`);
    if (seen.has(specimen_id)) refuse(`${name} is listed twice.`);
    seen.add(specimen_id);
    if (shown_as === 'parts') continue;
    const photo = (await listRowsBy(db, studyId, 'photos', 'specimen_id', specimen_id)).find(
      (row) => row.path === path,
    );
    if (!photo) refuse(`${name} has no such photo: choose one of its own.`);
    else if (photo.view !== view || photo.light !== light) {
      refuse(`The photo of ${name} has another view or light: judges would recognise it by that.`);
    }
  }
  if (shown_as === 'photos' && (view === null || draft.w_mm === null || draft.h_mm === null)) {
    refuse('Say of which view the photos are, and which place of it is shown.');
  }
  const items = draft.items.map(({ specimen_id, path }) => ({
    specimen_id,
    path: shown_as === 'parts' ? null : path,
  }));
  await replacePanelItems(write, draft.panel_id, items);
  const plan = await planOf(write, await findHeld(write, draft.panel_id), 1);
  planned(() => checkPlan(plan));
}

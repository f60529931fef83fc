import type { PanelPlan } from '../../core/measures/panels';
import {
  findRow,
  listPanelItems,
  listRows,
  listSpecimenFacts,
  type Panelist,
  type PanelItem,
  type SpecimenFacts,
  type Stored,
} from '../../data';

/** A panel with all that is kept of it, read within a write or beside one. */
export interface Held {
  panel: Stored<'panels'>;
  setup: Stored<'panel_setups'>;
  items: PanelItem[];
}

/** Reads a panel that was set up here. @throws NotFoundError */
export async function findHeld(of: Panelist, panelId: string): Promise<Held> {
  const key = { panel_id: panelId };
  const panel = await findRow(of.db, of.studyId, 'panels', key);
  const found = await findRow(of.db, of.studyId, 'panel_setups', key);
  return { panel, setup: found, items: await listPanelItems(of, panelId) };
}

/** What of a panel decides its order. Contenders stand as the study has them; what was taken out is out. */
export async function planOf(
  { db, studyId }: Panelist,
  { panel, setup: held, items }: Held,
  seed: number,
): Promise<PanelPlan> {
  const facts = new Map(
    (await listSpecimenFacts(db, studyId)).map((one) => [one.specimen_id, one]),
  );
  const shown = items.filter((one) => one.taken_out_at === null).map((one) => one.specimen_id);
  const contenders = (await listRows(db, studyId, 'contenders')).flatMap(({ contender_id }) => {
    const own = shown.filter((id) => facts.get(id)?.contender_id === contender_id);
    return own.length > 0 ? [{ contender_id, specimens: own }] : [];
  });
  return {
    kind: panel.kind,
    contenders,
    target: panel.target,
    seed,
    questions: held.questions,
    repeats: held.asked_again ?? 0,
  };
}

export const contenderName = (one: SpecimenFacts | undefined): string | null =>
  one ? (one.code ?? one.specimen_id) : null;

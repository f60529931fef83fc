import type { PANEL_ENDS } from '../../core/model/study';
import {
  listPanelJudges,
  openPanels,
  updateRow,
  writeStudy,
  type Database,
  type PanelJudge,
  type Write,
} from '../../data';
import { findHeld, type Held } from './held';

/** A judge who has not answered for so long has left: what was said counts, the place is free. */
const LEFT_AFTER_MS = 60 * 60 * 1000;

/** The time now, as the tables keep it. */
export const now = (): string => new Date().toISOString();

/** Whether a judge has come as far as they will: all is said, or they have gone. */
export const hasEnded = (judge: PanelJudge, at = Date.now()): boolean =>
  judge.ended_at !== null ||
  (judge.answered_at !== null && at - Date.parse(judge.answered_at) > LEFT_AFTER_MS);

/**
 * Ends a panel where its rule says so.
 *
 * @returns whether it is closed
 */
export async function closeIfDue(write: Write, held: Held): Promise<boolean> {
  const { setup } = held;
  if (setup.closed_at !== null) return true;
  if (setup.closes_at !== null && Date.parse(setup.closes_at) <= Date.now()) {
    await closePanel(write, held, 'date');
    return true;
  }
  const judges = await listPanelJudges(write, setup.panel_id);
  const done = judges.filter((one) => one.answered_at !== null && hasEnded(one)).length;
  if (done < setup.judges) return false;
  await closePanel(write, held, 'number');
  return true;
}

type End = (typeof PANEL_ENDS)[number];

export async function closePanel(write: Write, { setup }: Held, closed_by: End): Promise<void> {
  const key = { panel_id: setup.panel_id };
  await updateRow(write, 'panel_setups', key, { closed_at: now(), closed_by }, setup.row_version);
}

/** Ends the panels that their date has ended, or that everybody has left. */
export async function closeDuePanels(db: Database): Promise<void> {
  for (const { study_id, panel_id } of await openPanels(db)) {
    await writeStudy(db, study_id, null, async (write) => {
      await closeIfDue(write, await findHeld(write, panel_id));
    });
  }
}

import type { App } from '../app';
import { revealedResults, type RevealedPanel } from '../panels';

/** The panels of a study that somebody has judged in, and whose names are said. */
export async function panelsPage(
  app: App,
  studyId: string,
  reference: string | null,
): Promise<RevealedPanel[]> {
  const all = await revealedResults({ db: app.db, studyId }, reference);
  return all.filter(({ panel }) => panel.ballots > 0);
}

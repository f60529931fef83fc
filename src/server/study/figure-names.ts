import { namesOf, type FigureNames } from '../../core/answers/figure-names';
import { listTables } from '../../data';
import type { App } from '../app';

/** What a study calls the things that a figure's key names. */
export async function figureNames(
  app: App,
  studyId: string,
  currency: string,
): Promise<FigureNames> {
  const tables = await listTables(app.db, studyId, [
    'artefacts',
    'ladders',
    'ladder_steps',
    'panels',
  ]);
  return namesOf(tables, currency);
}

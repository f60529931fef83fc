import { wallClocks, type WallClock } from '../../data';
import type { App } from '../app';
import { artefactNames, type Named } from '../study/names';

/** What the page of speeds shows besides the results. */
export interface SpeedPage {
  artefacts: Named[];
  clocks: WallClock[];
}

/** Reads what the page of speeds shows besides the results. */
export async function speedPage(app: App, studyId: string): Promise<SpeedPage> {
  const [artefacts, clocks] = await Promise.all([
    artefactNames(app, studyId),
    wallClocks(app.db, studyId),
  ]);
  return { artefacts, clocks };
}

import { wallClocks, type WallClock } from '../../data';
import { app } from '../app';
import { artefactNames, type Named } from '../study/names';

/** What the page of speeds shows besides the results. */
export interface SpeedPage {
  artefacts: Named[];
  clocks: WallClock[];
}

/** Reads what the page of speeds shows besides the results. */
export async function speedPage(studyId: string): Promise<SpeedPage> {
  const [artefacts, clocks] = await Promise.all([
    artefactNames(studyId),
    wallClocks(app().db, studyId),
  ]);
  return { artefacts, clocks };
}

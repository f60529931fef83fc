import { machineOf, reachOf, type Reach, type ToolpathFacts } from '../core/toolpath';
import { filesOfContenders, loadStudy, slicedFacts, wallClocks, type WallClock } from '../data';
import { app } from './app';
import { artefactNames, type Named } from './names';

/** Claim, command and reach of every contender, from the files that its prints and the plan name. */
async function reachOfStudy(studyId: string): Promise<Record<string, Reach>> {
  const { db } = app();
  const [{ study }, files, named] = await Promise.all([
    loadStudy(db, studyId, ['contenders', 'machines']),
    slicedFacts(db, studyId),
    filesOfContenders(db, studyId),
  ]);
  const facts = new Map(files.map((file) => [file.path, file.facts]));
  const { contenders } = study.tables;
  return Object.fromEntries(
    contenders.map(({ contender_id }) => {
      const own = named.flatMap((row): ToolpathFacts[] => {
        const found = row.contender_id === contender_id ? facts.get(row.toolpath) : null;
        return found ? [found] : [];
      });
      return [contender_id, reachOf(own, machineOf(contender_id, study.tables))];
    }),
  );
}

/** What the page of speeds shows besides the results. */
export interface SpeedPage {
  artefacts: Named[];
  reach: Record<string, Reach>;
  clocks: WallClock[];
}

/** Reads what the page of speeds shows besides the results. */
export async function speedPage(studyId: string): Promise<SpeedPage> {
  const [artefacts, reach, clocks] = await Promise.all([
    artefactNames(studyId),
    reachOfStudy(studyId),
    wallClocks(app().db, studyId),
  ]);
  return { artefacts, reach, clocks };
}

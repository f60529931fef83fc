import { machineOf, reachOf, type Reach, type ToolpathFacts } from '../core/toolpath';
import { filesOfContenders, loadStudy, slicedFacts } from '../data';
import { app } from './app';

/** Claim, command and reach of every contender, from the files that its prints and the plan name. */
export async function reachOfStudy(studyId: string): Promise<Record<string, Reach>> {
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

import { machineOf, reachOf, type Reach, type ToolpathFacts } from '../core/toolpath';
import { loadStudy, slicedFacts } from '../data';
import { app } from './app';

/** Claim, command and reach of every contender, from the files that its prints and the plan name. */
export async function reachOfStudy(studyId: string): Promise<Record<string, Reach>> {
  const { db } = app();
  const [{ study }, files] = await Promise.all([
    loadStudy(db, studyId, ['contenders', 'machines', 'prints', 'planned']),
    slicedFacts(db, studyId),
  ]);
  const facts = new Map(files.map((file) => [file.path, file.facts]));
  const { contenders, prints, planned } = study.tables;
  return Object.fromEntries(
    contenders.map(({ contender_id }) => {
      const paths = new Set(
        [...prints, ...planned]
          .filter((row) => row.contender_id === contender_id)
          .flatMap((row) => row.toolpath ?? []),
      );
      const own = [...paths].flatMap((path): ToolpathFacts[] => {
        const found = facts.get(path);
        return found ? [found] : [];
      });
      return [contender_id, reachOf(own, machineOf(contender_id, study.tables))];
    }),
  );
}

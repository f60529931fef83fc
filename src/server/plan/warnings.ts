import { planDifferences, describePlanDifferences } from '../../core/answers/fairness';
import { groupBy } from '../../core/model/study';
import { loadStudy } from '../../data';
import type { App } from '../app';

/** By artefact: in what the files that it is to be printed from differ and must not. */
export async function planWarnings(app: App, studyId: string): Promise<Record<string, string>> {
  const { study } = await loadStudy(app.db, studyId, ['planned', 'contenders']);
  const { planned, contenders } = study.tables;
  const labels = new Map(contenders.map((row) => [row.contender_id, row.label]));
  const found = planDifferences(
    planned,
    study.sliced ?? new Map(),
    study.meta.intent,
    study.meta.sweep?.setting,
  );
  return Object.fromEntries(
    [...groupBy(found, (one) => one.artefact_id)].flatMap(([artefact, differences]) => {
      const said = describePlanDifferences(differences, (id) => labels.get(id) ?? id);
      return said === null ? [] : [[artefact, said]];
    }),
  );
}

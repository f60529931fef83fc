import type { FigureNames } from '../../core/words';
import { listTables } from '../../data';
import { app } from '../app';

/** What a study calls the things that a figure's key names. */
export async function figureNames(studyId: string, currency: string): Promise<FigureNames> {
  const { artefacts, ladders, ladder_steps, panels } = await listTables(app().db, studyId, [
    ...(['artefacts', 'ladders', 'ladder_steps', 'panels'] as const),
  ]);
  return {
    artefacts: Object.fromEntries(artefacts.map((row) => [row.artefact_id, row.name])),
    ladders: Object.fromEntries(
      ladders.map(({ artefact_id, ladder_id, name, unit }) => {
        const steps = ladder_steps
          .filter((row) => row.artefact_id === artefact_id && row.ladder_id === ladder_id)
          .sort((a, b) => a.step - b.step);
        const isUpward = (steps.at(-1)?.value ?? 0) > (steps[0]?.value ?? 0);
        return [`${artefact_id}/${ladder_id}`, { name, unit, isUpward }];
      }),
    ),
    panels: Object.fromEntries(panels.map((row) => [row.panel_id, row.aspect])),
    currency,
  };
}

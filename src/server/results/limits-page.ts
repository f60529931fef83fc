import { listTables } from '../../data';
import type { App } from '../app';

/** The names of a study's ladders and artefacts. */
export async function limitNames(
  app: App,
  studyId: string,
): Promise<{
  ladders: { key: string; name: string; artefact: string }[];
  artefacts: Record<string, string>;
}> {
  const { ladders, artefacts: rows } = await listTables(app.db, studyId, ['ladders', 'artefacts']);
  const artefacts = Object.fromEntries(rows.map((row) => [row.artefact_id, row.name]));
  return {
    ladders: ladders.map((row) => ({
      key: `${row.artefact_id}/${row.ladder_id}`,
      name: row.name,
      artefact: artefacts[row.artefact_id] ?? '',
    })),
    artefacts,
  };
}

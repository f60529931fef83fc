import { listTables } from '../../data';
import type { App } from '../app';

/** The zones of a study's artefacts by name, those that weigh most first within each artefact. */
export async function namedZones(app: App, studyId: string) {
  const { zones, artefacts: rows } = await listTables(app.db, studyId, ['zones', 'artefacts']);
  const artefacts = new Map(rows.map((row) => [row.artefact_id, row.name]));
  return zones
    .map(({ artefact_id, zone_id, name, weight }) => ({
      artefact_id,
      zone_id,
      name,
      weight: weight ?? 1,
      artefact: artefacts.get(artefact_id) ?? artefact_id,
    }))
    .sort((a, b) =>
      a.artefact < b.artefact ? -1 : a.artefact > b.artefact ? 1 : b.weight - a.weight,
    );
}

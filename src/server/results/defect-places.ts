import type { MeshSheet } from '../../core/geometry/mesh';
import { findingsOnSides, type SideFindings } from '../../core/measures/surface';
import { listFiles, listTables } from '../../data';
import type { App } from '../app';
import { sheetOfFile } from '../artefacts';

/** A side of an artefact with all findings on it, and its drawing. */
export interface DefectSide extends SideFindings {
  artefact: string;
  drawing: Pick<MeshSheet['sides']['front'], 'visible' | 'box'>;
}

/** Findings of all specimens on the drawings of their artefacts; of those without a mesh none. */
export async function defectSides(app: App, studyId: string): Promise<DefectSide[]> {
  const { db } = app;
  const [{ artefacts, ...tables }, files] = await Promise.all([
    listTables(db, studyId, ['artefacts', 'zone_places', 'findings', 'specimens', 'prints']),
    listFiles(db, studyId),
  ]);
  const sides: DefectSide[] = [];
  for (const own of findingsOnSides(tables)) {
    const artefact = artefacts.find((row) => row.artefact_id === own.artefact_id);
    const file = files.find(({ path }) => path === artefact?.mesh);
    const sheet = file && (await sheetOfFile(app, file));
    if (!artefact || !sheet) continue;
    const { visible, box } = sheet.sides[own.side];
    sides.push({ ...own, artefact: artefact.name, drawing: { visible, box } });
  }
  return sides;
}

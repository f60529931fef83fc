import { listRows } from '../../data';
import type { App } from '../app';

/** Something that a page names. */
export interface Named {
  id: string;
  name: string;
}

/** The artefacts of a study by name, in its order. */
export async function artefactNames(app: App, studyId: string): Promise<Named[]> {
  const rows = await listRows(app.db, studyId, 'artefacts');
  return rows.map(({ artefact_id: id, name }) => ({ id, name }));
}

/** The machines of a study by name, in its order. */
export async function machineNames(app: App, studyId: string): Promise<Named[]> {
  const rows = await listRows(app.db, studyId, 'machines');
  return rows.map(({ machine_id: id, name }) => ({ id, name }));
}

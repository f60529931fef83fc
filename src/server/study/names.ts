import { listRows } from '../../data';
import { app } from '../app';

/** Something that a page names. */
export interface Named {
  id: string;
  name: string;
}

/** The artefacts of a study by name, in its order. */
export async function artefactNames(studyId: string): Promise<Named[]> {
  const rows = await listRows(app().db, studyId, 'artefacts');
  return rows.map(({ artefact_id: id, name }) => ({ id, name }));
}

/** The machines of a study by name, in its order. */
export async function machineNames(studyId: string): Promise<Named[]> {
  const rows = await listRows(app().db, studyId, 'machines');
  return rows.map(({ machine_id: id, name }) => ({ id, name }));
}

import { listRows } from '../data';
import { app } from './app';

/** The artefacts of a study by name, in its order. */
export async function artefactNames(studyId: string): Promise<{ id: string; name: string }[]> {
  const rows = await listRows(app().db, studyId, 'artefacts');
  return rows.map((row) => ({ id: String(row.artefact_id), name: String(row.name) }));
}

import { listRows } from '../data';
import { app } from './app';

/** The machines of a study by name, in its order. */
export async function machineNames(studyId: string): Promise<{ id: string; name: string }[]> {
  const rows = await listRows(app().db, studyId, 'machines');
  return rows.map((row) => ({ id: String(row.machine_id), name: String(row.name) }));
}

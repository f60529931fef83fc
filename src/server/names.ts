import type { TableName } from '../core/study';
import { listRows } from '../data';
import { app } from './app';

/** Something that a page names. */
export interface Named {
  id: string;
  name: string;
}

async function named(studyId: string, table: TableName, id: string): Promise<Named[]> {
  const rows = await listRows(app().db, studyId, table);
  return rows.map((row) => ({ id: String(row[id]), name: String(row.name) }));
}

/** The artefacts of a study by name, in its order. */
export const artefactNames = (studyId: string): Promise<Named[]> =>
  named(studyId, 'artefacts', 'artefact_id');

/** The machines of a study by name, in its order. */
export const machineNames = (studyId: string): Promise<Named[]> =>
  named(studyId, 'machines', 'machine_id');

import { listRows, type VersionedRow } from '../data';
import { app } from './app';

/** The spools of a study. */
export const materialRows = (studyId: string): Promise<VersionedRow[]> =>
  listRows(app().db, studyId, 'spools');

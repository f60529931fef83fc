import { listSlicedFiles, listTables, type Stored } from '../../data';
import { app } from '../app';

/** The tables that the line-up is made of. */
const LINE_UP_TABLES = [
  'contenders',
  'machines',
  'profiles',
  'profile_settings',
  'materials',
  'artefacts',
  'dimensions',
  'instruments',
] as const;

export type LineUpTable = (typeof LINE_UP_TABLES)[number];

/** All rows of the tables that the line-up is made of. */
export const lineUpRows = (studyId: string): Promise<{ [Name in LineUpTable]: Stored<Name>[] }> =>
  listTables(app().db, studyId, LINE_UP_TABLES);

/** The paths of a study's sliced files that were read. */
export async function readFilePaths(studyId: string): Promise<string[]> {
  const files = await listSlicedFiles(app().db, studyId);
  return files.filter((file) => file.state === 'read').map((file) => file.path);
}

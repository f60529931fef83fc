import {
  deleteSlicedFile,
  estimateOfFile,
  findRow,
  findSlicedFile,
  findStudy,
  insertRow,
  listRows,
  listRowsBy,
  listSlicedFiles,
  setPurpose,
  setReading,
  updateRow,
  writeStudy,
  type SlicedFile,
  type SlicedSummary,
  type Write,
} from '../../data';
import { MOST_PLANNED } from '../../core/model/study';
import { afterwards, type App } from '../app';
import { RequestError } from '../http/problem';
import { queueReading, queueUnread } from '../jobs';

/** All sliced files of a study. @throws NotFoundError */
export async function slicedFilesOf(app: App, studyId: string): Promise<SlicedSummary[]> {
  await findStudy(app.db, studyId);
  return listSlicedFiles(app.db, studyId);
}

/** One sliced file with what it says. @throws NotFoundError */
export async function slicedFileOf(app: App, studyId: string, path: string) {
  await findStudy(app.db, studyId);
  return findSlicedFile(app.db, studyId, path);
}

/** What a person says a file is for. */
export interface Confirmed {
  contender_id: string;
  artefact_id: string;
  /** Whether the prints of that cell that name no file are to name this one. */
  link_prints: boolean;
}

/**
 * Sets what several files are for. One action, one transaction: where one of them cannot be, none is set.
 */
export async function confirmPurposes(
  app: App,
  studyId: string,
  files: readonly (Confirmed & { path: string })[],
  who: string | null,
): Promise<SlicedSummary[]> {
  await writeStudy(app.db, studyId, who, async (write) => {
    for (const file of files) await confirmIn(write, file);
  });
  afterwards(app, () => queueUnread(app));
  return slicedFilesOf(app, studyId);
}

async function confirmIn(
  write: Write,
  { path, contender_id, artefact_id, link_prints }: Confirmed & { path: string },
): Promise<void> {
  await findRow(write.db, write.studyId, 'contenders', { contender_id });
  await findRow(write.db, write.studyId, 'artefacts', { artefact_id });
  await purposeIn(write, path, contender_id, artefact_id);
  if (link_prints) await linkPrints(write, path, contender_id, artefact_id);
}

/**
 * Sets what a file is for: the plan uses it for that contender and artefact, and it is read again
 * where the machine is another one than was thought. One action, one transaction.
 */
export async function confirmPurpose(
  app: App,
  studyId: string,
  path: string,
  confirmed: Confirmed,
  who: string | null,
): Promise<SlicedFile> {
  const { db } = app;
  await writeStudy(db, studyId, who, (write) => confirmIn(write, { path, ...confirmed }));
  afterwards(app, () => queueUnread(app));
  return findSlicedFile(db, studyId, path);
}

/** Says within a write what a file is for, and has the plan print it from there. */
export async function purposeIn(
  write: Write,
  path: string,
  contender_id: string,
  artefact_id: string,
): Promise<void> {
  await findSlicedFile(write.db, write.studyId, path);
  await setPurpose(write, path, { contender_id, artefact_id, is_confirmed: true });
  await planWith(write, path, contender_id, artefact_id);
}

/** Has the plan print a cell from a file. A cell that is not planned yet is planned once. */
async function planWith(
  write: Write,
  path: string,
  contender_id: string,
  artefact_id: string,
): Promise<void> {
  const { db, studyId } = write;
  const planned = await listRowsBy(db, studyId, 'planned', 'contender_id', contender_id);
  const own = planned.filter((row) => row.artefact_id === artefact_id);
  for (const { material_id, row_version } of own) {
    const key = { contender_id, artefact_id, material_id };
    await updateRow(write, 'planned', key, { toolpath: path }, row_version);
  }
  if (own.length > 0) return;
  const same = await listRowsBy(db, studyId, 'prints', 'artefact_id', artefact_id);
  const [first] = await listRows(db, studyId, 'materials');
  const material_id = same.at(-1)?.material_id ?? first?.material_id;
  if (material_id === undefined) return;
  const repeats = same.reduce((highest, row) => Math.max(highest, row.repeat), 1);
  await insertRow(write, 'planned', {
    contender_id,
    artefact_id,
    material_id,
    repeats: Math.min(repeats, MOST_PLANNED),
    toolpath: path,
  });
}

async function linkPrints(
  write: Write,
  path: string,
  contender_id: string,
  artefact_id: string,
): Promise<void> {
  const { db, studyId } = write;
  const estimate_s = await estimateOfFile(db, studyId, path);
  for (const table of ['prints', 'open_prints'] as const) {
    for (const row of await listRowsBy(db, studyId, table, 'contender_id', contender_id)) {
      if (row.artefact_id !== artefact_id || row.toolpath !== null) continue;
      const change = { toolpath: path, ...(row.estimate_s === null && { estimate_s }) };
      await updateRow(write, table, { print_id: row.print_id }, change, row.row_version);
    }
  }
}

/** Reads a file again that could not be read. */
export async function readAgain(app: App, studyId: string, path: string): Promise<SlicedFile> {
  const { db } = app;
  await slicedFileOf(app, studyId, path);
  await setReading(db, studyId, path, 'waiting', 0);
  afterwards(app, () => queueReading(app, studyId, path));
  return findSlicedFile(db, studyId, path);
}

/** Takes a file out of the study, unless a print or the plan names it. */
export const takeOutFile = (
  app: App,
  studyId: string,
  path: string,
  who: string | null,
): Promise<void> =>
  writeStudy(app.db, studyId, who, async (write) => {
    const { db } = write;
    await findSlicedFile(db, studyId, path);
    for (const table of ['prints', 'open_prints', 'planned'] as const) {
      const naming = (await listRowsBy(db, studyId, table, 'toolpath', path)).length;
      if (naming > 0) {
        const what = table === 'planned' ? 'The plan' : `${naming} of the prints`;
        throw new RequestError(
          422,
          `${what} still names this file: choose another one there first.`,
        );
      }
    }
    await deleteSlicedFile(write, path);
  });

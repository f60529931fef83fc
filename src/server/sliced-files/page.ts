import { machineOf } from '../../core/toolpath';
import { findSlicedFile, listRowsBy, loadStudy, NotFoundError } from '../../data';
import type { App } from '../app';

/** What the page of one sliced file shows besides the file's own facts. */
export async function filePage(app: App, studyId: string, path: string) {
  const { db } = app;
  try {
    const file = await findSlicedFile(db, studyId, path);
    const [{ study }, prints] = await Promise.all([
      loadStudy(db, studyId, ['contenders', 'machines', 'artefacts', 'profiles']),
      listRowsBy(db, studyId, 'prints', 'toolpath', path),
    ]);
    const { artefacts, contenders, profiles } = study.tables;
    const contender = contenders.find((row) => row.contender_id === file.contender_id) ?? null;
    return {
      file,
      artefact: artefacts.find((row) => row.artefact_id === file.artefact_id)?.name ?? null,
      profile: profiles.find((row) => row.profile_id === contender?.profile_id) ?? null,
      machine: machineOf(file.contender_id, study.tables),
      /** Prints that were made from it. */
      prints,
    };
  } catch (error) {
    if (error instanceof NotFoundError) return null;
    throw error;
  }
}

import type { MeshSheet } from '../../core/geometry/mesh';
import { listFiles, listTables } from '../../data';
import type { App } from '../app';
import { sheetOfFile } from '../artefacts/meshes';

/** The sides of a part that its drawing shows. */
export type DrawnSides = Pick<MeshSheet['sides'], 'front' | 'left' | 'top'>;

/** Drawings of artefacts of a study, by artefact; those without a mesh have none. */
export async function sidesOfArtefacts(
  app: App,
  studyId: string,
  wanted: ReadonlySet<string>,
): Promise<Record<string, DrawnSides>> {
  const { db } = app;
  const [{ artefacts }, files] = await Promise.all([
    listTables(db, studyId, ['artefacts']),
    listFiles(db, studyId),
  ]);
  const byPath = new Map(files.map((file) => [file.path, file]));
  const found = await Promise.all(
    artefacts
      .filter(({ artefact_id }) => wanted.has(artefact_id))
      .map(async ({ artefact_id, mesh }) => {
        const file = mesh === null ? undefined : byPath.get(mesh);
        const sheet = file ? await sheetOfFile(app, file) : null;
        if (!sheet) return [];
        const { front, left, top } = sheet.sides;
        return [[artefact_id, { front, left, top }] as const];
      }),
  );
  return Object.fromEntries(found.flat());
}

import type { MeshSheet } from '../../core/geometry/mesh';
import { listItems, type CatalogueItem } from '../../data';
import type { App } from '../app';
import { sheetOfFile } from '../artefacts';
import { artefactGroups } from './standings';

/** An artefact of the library: a drawing, and who printed it. */
export interface LibraryArtefact {
  thing: CatalogueItem;
  version: string | null;
  sheet: MeshSheet | null;
  prints: number;
  studies: number;
}

/** The artefacts of the workshop with their drawings. */
export async function libraryPage(app: App): Promise<LibraryArtefact[]> {
  const [things, groups] = await Promise.all([listItems(app.db, 'artefact'), artefactGroups(app)]);
  return Promise.all(
    things.map(async (thing): Promise<LibraryArtefact> => {
      const group = groups.find((members) => members.some((one) => one.thing === thing.uid)) ?? [];
      const file = group.find((one) => one.file)?.file;
      return {
        thing,
        version: thing.facts.version === null ? null : String(thing.facts.version ?? ''),
        sheet: file ? await sheetOfFile(app, file) : null,
        prints: group.reduce((sum, one) => sum + one.prints, 0),
        studies: new Set(group.filter((one) => one.prints > 0).map((one) => one.study_id)).size,
      };
    }),
  );
}

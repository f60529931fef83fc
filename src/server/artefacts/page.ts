import type { MeshSheet } from '../../core/geometry/mesh';
import { groupBy } from '../../core/model/study';
import { listFiles, listTables, tallyPrints, type Stored } from '../../data';
import type { App } from '../app';
import { sheetOfFile } from './meshes';

/** An artefact with all that is looked at on it, and what was printed of it. */
export interface ArtefactData {
  artefact: Stored<'artefacts'>;
  sheet: MeshSheet | null;
  dimensions: Stored<'dimensions'>[];
  dimensionPlaces: Stored<'dimension_places'>[];
  /** Ids of dimensions that are no longer measured. */
  retired: string[];
  ladders: Stored<'ladders'>[];
  steps: Stored<'ladder_steps'>[];
  ladderPlaces: Stored<'ladder_places'>[];
  zones: Stored<'zones'>[];
  zonePlaces: Stored<'zone_places'>[];
  checks: string[];
  copies: Stored<'copy_places'>[];
  squares: Stored<'squares'>[];
  prints: number;
}

const TABLES_OF_ARTEFACTS = [
  'artefacts',
  'dimensions',
  'dimension_places',
  'retired_dimensions',
  'ladders',
  'ladder_steps',
  'ladder_places',
  'zones',
  'zone_places',
  'function_checks',
  'copy_places',
  'squares',
] as const;

/** The artefacts of a study, in the order in which they came. */
export async function artefactsOf(app: App, studyId: string): Promise<ArtefactData[]> {
  const { db } = app;
  const [files, tallies, tables] = await Promise.all([
    listFiles(db, studyId),
    tallyPrints(db, studyId),
    listTables(db, studyId, TABLES_OF_ARTEFACTS),
  ]);
  const byPath = new Map(files.map((file) => [file.path, file]));
  const grouped = <Row extends { artefact_id: string }>(rows: Row[]) => {
    const groups = groupBy(rows, (row) => row.artefact_id);
    return (id: string) => groups.get(id) ?? [];
  };
  const own = {
    dimensions: grouped(tables.dimensions),
    dimensionPlaces: grouped(tables.dimension_places),
    retired: grouped(tables.retired_dimensions),
    ladders: grouped(tables.ladders),
    steps: grouped(tables.ladder_steps),
    ladderPlaces: grouped(tables.ladder_places),
    zones: grouped(tables.zones),
    zonePlaces: grouped(tables.zone_places),
    checks: grouped(tables.function_checks),
    copies: grouped(tables.copy_places),
    squares: grouped(tables.squares),
    tallies: grouped(tallies),
  };
  return Promise.all(
    tables.artefacts.map(async (artefact) => {
      const id = artefact.artefact_id;
      const file = byPath.get(artefact.mesh ?? '');
      return {
        artefact,
        sheet: file ? await sheetOfFile(app, file) : null,
        dimensions: own.dimensions(id),
        dimensionPlaces: own.dimensionPlaces(id),
        retired: own.retired(id).map((row) => row.dimension_id),
        ladders: own.ladders(id),
        steps: own.steps(id),
        ladderPlaces: own.ladderPlaces(id),
        zones: own.zones(id),
        zonePlaces: own.zonePlaces(id),
        checks: own.checks(id).map((row) => row.check),
        copies: own.copies(id),
        squares: own.squares(id),
        prints: own
          .tallies(id)
          .reduce((sum, one) => sum + one.success + one.rescued + one.failed + one.aborted, 0),
      };
    }),
  );
}

import type { MeshSheet } from '../../core/mesh';
import { listFiles, listRows, tallyPrints, type VersionedRow } from '../../data';
import { app } from '../app';
import { sheetOfFile } from './meshes';

/** An artefact with all that is looked at on it, and what was printed of it. */
export interface ArtefactData {
  artefact: VersionedRow;
  sheet: MeshSheet | null;
  dimensions: VersionedRow[];
  dimensionPlaces: VersionedRow[];
  /** Ids of dimensions that are no longer measured. */
  retired: string[];
  ladders: VersionedRow[];
  steps: VersionedRow[];
  ladderPlaces: VersionedRow[];
  zones: VersionedRow[];
  zonePlaces: VersionedRow[];
  checks: string[];
  copies: VersionedRow[];
  squares: VersionedRow[];
  prints: number;
}

/** The artefacts of a study, in the order in which they came. */
export async function artefactsOf(studyId: string): Promise<ArtefactData[]> {
  const { db } = app();
  const tables = [
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
  const [files, tallies, ...rows] = await Promise.all([
    listFiles(db, studyId),
    tallyPrints(db, studyId),
    ...tables.map((table) => listRows(db, studyId, table)),
  ]);
  const [artefacts = []] = rows;
  return Promise.all(
    artefacts.map(async (artefact) => {
      const file = files.find(({ path }) => path === artefact.mesh);
      const own = (table: (typeof tables)[number]) =>
        (rows[tables.indexOf(table)] ?? []).filter(
          (row) => row.artefact_id === artefact.artefact_id,
        );
      return {
        artefact,
        sheet: file ? await sheetOfFile(file) : null,
        dimensions: own('dimensions'),
        dimensionPlaces: own('dimension_places'),
        retired: own('retired_dimensions').map((row) => String(row.dimension_id)),
        ladders: own('ladders'),
        steps: own('ladder_steps'),
        ladderPlaces: own('ladder_places'),
        zones: own('zones'),
        zonePlaces: own('zone_places'),
        checks: own('function_checks').map((row) => String(row.check)),
        copies: own('copy_places'),
        squares: own('squares'),
        prints: tallies
          .filter((tally) => tally.artefact_id === artefact.artefact_id)
          .reduce(
            (sum, tally) => sum + tally.success + tally.rescued + tally.failed + tally.aborted,
            0,
          ),
      };
    }),
  );
}

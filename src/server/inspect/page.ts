import { groupBy } from '../../core/model/study';
import { listSpecimenFacts, listTables, type SpecimenFacts, type Stored } from '../../data';
import type { App } from '../app';
import { sidesOfArtefacts, type DrawnSides } from '../measure/drawings';

/** A zone that is inspected, and where it lies on a side of the part. */
export interface BenchZone {
  zone_id: string;
  name: string;
  weight: number;
  place: Stored<'zone_places'> | null;
}

/** What is inspected: specimens of artefacts with zones, by artefact what is looked at. */
export interface InspectBenchData {
  specimens: SpecimenFacts[];
  zones: Record<string, BenchZone[]>;
  drawings: Record<string, DrawnSides>;
  /** What hands did to specimens so far. */
  aftercare: Stored<'aftercare'>[];
  /** All artefacts of the study, with how many zones each has. */
  artefacts: { id: string; name: string; zones: number }[];
}

/** Reads what is needed to inspect specimens; those of artefacts without a zone are left out. */
export async function inspectBenchData(app: App, studyId: string): Promise<InspectBenchData> {
  const { db } = app;
  const [specimens, zones, { aftercare, artefacts }] = await Promise.all([
    listSpecimenFacts(db, studyId),
    zonesOf(app, studyId),
    listTables(db, studyId, ['aftercare', 'artefacts']),
  ]);
  return {
    specimens: specimens.filter((one) => zones[one.artefact_id]),
    zones,
    aftercare,
    artefacts: artefacts.map(({ artefact_id: id, name }) => ({
      id,
      name,
      zones: zones[id]?.length ?? 0,
    })),
    drawings: await sidesOfArtefacts(app, studyId, new Set(Object.keys(zones))),
  };
}

/** By artefact, the zones that are inspected, with where they lie. */
export async function zonesOf(app: App, studyId: string): Promise<Record<string, BenchZone[]>> {
  const tables = await listTables(app.db, studyId, ['zones', 'zone_places']);
  const places = new Map(
    tables.zone_places.map((row) => [`${row.artefact_id}/${row.zone_id}`, row]),
  );
  return Object.fromEntries(
    [...groupBy(tables.zones, (row) => row.artefact_id)].map(([artefact, own]) => [
      artefact,
      own.map(({ zone_id, name, weight }): BenchZone => ({
        zone_id,
        name,
        weight: weight ?? 1,
        place: places.get(`${artefact}/${zone_id}`) ?? null,
      })),
    ]),
  );
}

import * as z from 'zod';
import { idFrom, TABLES } from '../../core/model/study';
import { listRowsBy, writeStudy, type Stored } from '../../data';
import type { App } from '../app';
import { insertChecked } from '../rows';

/** A dimension and where it stands on its part; its id is found when it is kept. */
export const dimensionContent = z.strictObject({
  dimension: TABLES.dimensions.row.omit({ artefact_id: true, dimension_id: true }).strict(),
  place: TABLES.dimension_places.row.omit({ artefact_id: true, dimension_id: true }).strict(),
});

/** A zone and where it lies; its id is found when it is kept. */
export const zoneContent = z.strictObject({
  zone: TABLES.zones.row.omit({ artefact_id: true, zone_id: true }).strict(),
  place: TABLES.zone_places.row.omit({ artefact_id: true, zone_id: true }).strict(),
});

/** Adds a dimension with its place, or nothing. @throws RequestError */
export const addDimension = (
  app: App,
  studyId: string,
  artefact_id: string,
  { dimension, place }: z.infer<typeof dimensionContent>,
  who: string | null,
): Promise<{ dimension: Stored<'dimensions'>; place: Stored<'dimension_places'> }> =>
  writeStudy(app.db, studyId, who, async (write) => {
    // What is retired has its id still.
    const all = await listRowsBy(write.db, studyId, 'dimensions', 'artefact_id', artefact_id);
    const taken = all.map((row) => row.dimension_id);
    const key = { artefact_id, dimension_id: idFrom(dimension.name, taken, 'dimension') };
    return {
      dimension: await insertChecked(write, 'dimensions', { ...dimension, ...key }),
      place: await insertChecked(write, 'dimension_places', { ...place, ...key }),
    };
  });

/** Adds a zone with its place, or nothing. @throws RequestError */
export const addZone = (
  app: App,
  studyId: string,
  artefact_id: string,
  { zone, place }: z.infer<typeof zoneContent>,
  who: string | null,
): Promise<{ zone: Stored<'zones'>; place: Stored<'zone_places'> }> =>
  writeStudy(app.db, studyId, who, async (write) => {
    const all = await listRowsBy(write.db, studyId, 'zones', 'artefact_id', artefact_id);
    const taken = all.map((row) => row.zone_id);
    const key = { artefact_id, zone_id: idFrom(zone.name, taken, 'zone') };
    return {
      zone: await insertChecked(write, 'zones', { ...zone, ...key }),
      place: await insertChecked(write, 'zone_places', { ...place, ...key }),
    };
  });

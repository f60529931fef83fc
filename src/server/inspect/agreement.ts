import { groupBy } from '../../core/model/study';
import {
  disagreements,
  inspectorsShares,
  type Disagreement,
  type InspectorsShare,
} from '../../core/measures/surface';
import { findStudy, listSpecimenFacts, listTables } from '../../data';
import type { App } from '../app';

/** A disagreement with the names of what it is about. */
export interface NamedDisagreement extends Disagreement {
  code: string;
  contender_id: string;
  artefact: string;
  zone: string;
}

export interface AgreementData {
  inspectors: InspectorsShare[];
  disagreements: NamedDisagreement[];
}

/** How far each inspector has got, and where they differ on zones that the one who asks has graded. */
export async function agreementData(
  app: App,
  studyId: string,
  asks: string,
): Promise<AgreementData> {
  const { db } = app;
  await findStudy(db, studyId);
  const [specimens, tables] = await Promise.all([
    listSpecimenFacts(db, studyId),
    listTables(db, studyId, ['zones', 'inspections', 'findings']),
  ]);
  const zonesOf = groupBy(tables.zones, (row) => row.artefact_id);
  const due = specimens.flatMap((one) =>
    (zonesOf.get(one.artefact_id) ?? []).map(({ zone_id, name }) => {
      const { specimen_id, code, contender_id, artefact } = one;
      return {
        specimen_id,
        zone_id,
        code: code ?? specimen_id,
        contender_id,
        artefact,
        zone: name,
      };
    }),
  );
  const named = new Map(due.map((zone) => [`${zone.specimen_id} ${zone.zone_id}`, zone]));
  return {
    inspectors: inspectorsShares(due, tables.inspections),
    disagreements: disagreements(due, tables.inspections, tables.findings, asks).flatMap((one) => {
      const names = named.get(`${one.specimen_id} ${one.zone_id}`);
      return names ? [{ ...names, ...one }] : [];
    }),
  };
}

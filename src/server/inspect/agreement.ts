import { groupBy } from '../../core/study';
import { listSpecimenFacts, listTables } from '../../data';
import { app } from '../app';

/** How far an inspector has got. */
export interface InspectorsShare {
  inspector: string;
  /** Zones of specimens that were looked at, of all that there are. */
  done: number;
  of: number;
  /** The first specimen on which something is due; null where all is done. */
  next: string | null;
}

/** A defect of a zone that inspectors graded differently. */
export interface Disagreement {
  specimen_id: string;
  code: string;
  contender_id: string;
  artefact: string;
  zone_id: string;
  zone: string;
  defect: string;
  /** The grade of each who looked at the zone; who found nothing of it gave 0. */
  grades: { inspector: string; grade: number }[];
  apart: number;
}

export interface AgreementData {
  inspectors: InspectorsShare[];
  disagreements: Disagreement[];
}

/** How far each inspector has got, and where those who looked at the same zone differ. */
export async function agreementData(studyId: string): Promise<AgreementData> {
  const { db } = app();
  const [specimens, tables] = await Promise.all([
    listSpecimenFacts(db, studyId),
    listTables(db, studyId, ['zones', 'inspections', 'findings']),
  ]);
  const zonesOf = groupBy(tables.zones, (row) => row.artefact_id);
  const due = specimens.flatMap((one) =>
    (zonesOf.get(one.artefact_id) ?? []).map((zone) => ({ specimen: one, zone })),
  );
  const looked = groupBy(tables.inspections, (row) => `${row.specimen_id} ${row.zone_id}`);
  const found = groupBy(tables.findings, (row) => `${row.specimen_id} ${row.zone_id}`);
  const names = [...new Set(tables.inspections.map((row) => row.inspector))].sort();
  const inspectors = names.map((inspector): InspectorsShare => {
    const isDone = ({ specimen, zone }: (typeof due)[number]) =>
      looked
        .get(`${specimen.specimen_id} ${zone.zone_id}`)
        ?.some((row) => row.inspector === inspector) ?? false;
    return {
      ...{ inspector, done: due.filter(isDone).length, of: due.length },
      next: due.find((one) => !isDone(one))?.specimen.specimen_id ?? null,
    };
  });
  const disagreements = due.flatMap(({ specimen, zone }): Disagreement[] => {
    const key = `${specimen.specimen_id} ${zone.zone_id}`;
    const eyes = looked.get(key) ?? [];
    if (eyes.length < 2) return [];
    const own = found.get(key) ?? [];
    return [...new Set(own.map((row) => row.defect))].flatMap((defect) => {
      const grades = eyes.map(({ inspector }) => ({
        inspector,
        grade: own.find((row) => row.inspector === inspector && row.defect === defect)?.grade ?? 0,
      }));
      const all = grades.map(({ grade }) => grade);
      const apart = Math.max(...all) - Math.min(...all);
      if (apart === 0) return [];
      const { specimen_id, code, contender_id, artefact } = specimen;
      return [
        {
          ...{ specimen_id, code: code ?? specimen_id, contender_id, artefact },
          ...{ zone_id: zone.zone_id, zone: zone.name, defect, grades, apart },
        },
      ];
    });
  });
  return { inspectors, disagreements: disagreements.sort((a, b) => b.apart - a.apart) };
}

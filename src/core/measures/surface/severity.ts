import { mean, sum, sumOf } from '../../statistics/stats';
import {
  groupBy,
  withinArtefact,
  type Row,
  type Specimen,
  type StudyIndex,
} from '../../model/study';

type Defect = Row<'findings'>['defect'];

/** How bad a defect is in a zone: the mean grade over the inspectors who looked at the zone. */
export interface DefectSeverity {
  defect: Defect;
  /** 0 none … 4 severe; an inspector who found none of it counts 0. */
  severity: number;
}

/** A zone of a specimen that somebody looked at. */
export interface InspectedZone {
  zone_id: string;
  weight: number;
  inspectors: readonly string[];
  /** The worst of its defects; 0 where it is clean. */
  severity: number;
  /** What was found, the worst first; of equals by name. */
  defects: DefectSeverity[];
}

/** A specimen that somebody looked at. */
export interface InspectedSpecimen {
  specimen: Specimen;
  artefact_id: string;
  /** What its print is a repeat of. */
  stratum: string;
  /** 100 for a clean part, 0 for one that is severe everywhere; null where all weights are 0. */
  index: number | null;
  /** Weight of the zones that were looked at over the weight of all; null where all are 0. */
  coverage: number | null;
  zones: InspectedZone[];
}

const MOST_SEVERE = 4;
/** A zone whose weight is not said counts as one. */
const weightOf = (zone: Row<'zones'>): number => zone.weight ?? 1;
const zoneKey = (row: { specimen_id: string; zone_id: string }) =>
  `${row.specimen_id}/${row.zone_id}`;

/** Every specimen of which a zone was inspected, by its contender. */
export function inspectedSpecimens(index: StudyIndex): Map<string, InspectedSpecimen[]> {
  const { inspections, findings, zones } = index.study.tables;
  const zonesOfArtefact = groupBy(zones, (zone) => zone.artefact_id);
  const weights = new Map(
    zones.map((zone) => [withinArtefact(zone.artefact_id, zone.zone_id), weightOf(zone)]),
  );
  const findingsOfZone = groupBy(findings, zoneKey);
  const inspectionsOf = groupBy(inspections, (row) => row.specimen_id);
  const found = new Map<string, InspectedSpecimen[]>();
  for (const [specimenId, own] of inspectionsOf) {
    const specimen = index.specimens.get(specimenId);
    const print = specimen && index.prints.get(specimen.print_id);
    if (!print) continue;
    const { artefact_id, contender_id } = print;
    const inspected = [...groupBy(own, (row) => row.zone_id)].map(
      ([zone_id, rows]): InspectedZone => {
        const inspectors = [...new Set(rows.map((row) => row.inspector))];
        const defects = defectsOf(findingsOfZone.get(`${specimenId}/${zone_id}`) ?? [], inspectors);
        return {
          zone_id,
          weight: weights.get(withinArtefact(artefact_id, zone_id)) ?? 0,
          inspectors,
          severity: defects[0]?.severity ?? 0,
          defects,
        };
      },
    );
    const looked = sumOf(inspected, (zone) => zone.weight);
    const all = sum((zonesOfArtefact.get(artefact_id) ?? []).map(weightOf));
    const lost = sumOf(inspected, (zone) => zone.weight * zone.severity);
    const row: InspectedSpecimen = {
      specimen,
      artefact_id,
      stratum: index.stratumOf(print),
      index: looked > 0 ? 100 * (1 - lost / (MOST_SEVERE * looked)) : null,
      coverage: all > 0 ? looked / all : null,
      zones: inspected,
    };
    const group = found.get(contender_id);
    if (group) group.push(row);
    else found.set(contender_id, [row]);
  }
  return found;
}

function defectsOf(
  rows: readonly Row<'findings'>[],
  inspectors: readonly string[],
): DefectSeverity[] {
  return [...groupBy(rows, (row) => row.defect)]
    .map(([defect, own]) => {
      const grades = inspectors.map(
        (inspector) => own.find((row) => row.inspector === inspector)?.grade ?? 0,
      );
      return { defect, severity: mean(grades) };
    })
    .sort((a, b) => b.severity - a.severity || (a.defect < b.defect ? -1 : 1));
}

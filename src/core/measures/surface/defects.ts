import { meanOf } from '../../statistics/stats';
import { groupBy, withinArtefact, type Row, type StudyIndex } from '../../model/study';
import { inspectedSpecimens, type InspectedSpecimen } from './severity';

type Defect = Row<'findings'>['defect'];

/** How a zone of an artefact comes out with a contender. */
export interface ZoneDefects {
  /** Specimens of which the zone was looked at. */
  specimens: number;
  /** Of them with any finding. */
  found: number;
  /** The mean severity over them. */
  mean: number;
  /** The worst of them: which specimen, and of what; null where all are clean. */
  worst: { specimen_id: string; defect: Defect; severity: number } | null;
}

/** How often a defect was found on parts of a material. */
export interface MaterialDefect {
  /** Specimens of the material that were looked at. */
  specimens: number;
  /** Of them with this defect. */
  found: number;
  /** The severest of them. */
  worst: number;
}

/** Where the defects sit, and in which materials. */
export interface Defects {
  /** By contender and `artefact/zone`. */
  zones: Record<string, Record<string, ZoneDefects>>;
  /** By defect and type of material, all contenders together. */
  materials: Record<string, Record<string, MaterialDefect>>;
}

/** Where the defects of all contenders sit, and in which materials. */
export function defectsOfAll(index: StudyIndex): Defects {
  const inspected = inspectedSpecimens(index);
  return {
    zones: Object.fromEntries(
      index.study.tables.contenders.map(({ contender_id }) => [
        contender_id,
        zonesOf(inspected.get(contender_id) ?? []),
      ]),
    ),
    materials: materialsOf(index, [...inspected.values()].flat()),
  };
}

function zonesOf(specimens: readonly InspectedSpecimen[]): Record<string, ZoneDefects> {
  const looked = specimens.flatMap(({ specimen, artefact_id, zones }) =>
    zones.map((zone) => ({
      specimen_id: specimen.specimen_id,
      zone,
      key: withinArtefact(artefact_id, zone.zone_id),
    })),
  );
  return Object.fromEntries(
    [...groupBy(looked, (one) => one.key)].map(([key, own]) => {
      // Of equals the first by id.
      const worst = own.reduce((a, b) =>
        b.zone.severity > a.zone.severity ||
        (b.zone.severity === a.zone.severity && b.specimen_id < a.specimen_id)
          ? b
          : a,
      );
      const [defect] = worst.zone.defects;
      const found: ZoneDefects = {
        specimens: own.length,
        found: own.filter(({ zone }) => zone.severity > 0).length,
        mean: meanOf(own, ({ zone }) => zone.severity),
        worst: defect && defect.severity > 0 ? { specimen_id: worst.specimen_id, ...defect } : null,
      };
      return [key, found];
    }),
  );
}

function materialsOf(
  index: StudyIndex,
  specimens: readonly InspectedSpecimen[],
): Defects['materials'] {
  const byType = groupBy(specimens, ({ specimen }) => {
    const print = index.prints.get(specimen.print_id);
    return print ? index.typeOf(print) : '';
  });
  const found: Defects['materials'] = {};
  for (const [type, own] of byType) {
    const severities = own.flatMap(({ specimen, zones }) =>
      zones.flatMap(({ defects }) =>
        defects
          .filter(({ severity }) => severity > 0)
          .map(({ defect, severity }) => ({ id: specimen.specimen_id, defect, severity })),
      ),
    );
    for (const [defect, rows] of groupBy(severities, (one) => one.defect)) {
      (found[defect] ??= {})[type] = {
        specimens: own.length,
        found: new Set(rows.map((row) => row.id)).size,
        worst: Math.max(...rows.map((row) => row.severity)),
      };
    }
  }
  // A material in which a defect was looked for and not found is known to be clean of it.
  for (const row of Object.values(found)) {
    for (const [type, own] of byType) row[type] ??= { specimens: own.length, found: 0, worst: 0 };
  }
  return found;
}

import { groupBy, type Row } from '../../model/study';

/** A zone of a specimen that is to be looked at. */
export interface DueZone {
  specimen_id: string;
  zone_id: string;
}

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
export interface Disagreement extends DueZone {
  defect: string;
  /** The grade of each who looked at the zone; who found nothing of it gave 0. */
  grades: { inspector: string; grade: number }[];
  apart: number;
}

type Inspections = readonly Pick<Row<'inspections'>, 'specimen_id' | 'zone_id' | 'inspector'>[];
type Findings = readonly Pick<
  Row<'findings'>,
  'specimen_id' | 'zone_id' | 'inspector' | 'defect' | 'grade'
>[];

const keyOf = ({ specimen_id, zone_id }: DueZone): string => `${specimen_id} ${zone_id}`;

/** How far each inspector who has begun has got, by name. */
export function inspectorsShares(
  due: readonly DueZone[],
  inspections: Inspections,
): InspectorsShare[] {
  const byInspector = groupBy(inspections, (row) => row.inspector);
  return [...byInspector.keys()].sort().map((inspector) => {
    const looked = new Set((byInspector.get(inspector) ?? []).map(keyOf));
    const left = due.filter((zone) => !looked.has(keyOf(zone)));
    return {
      inspector,
      done: due.length - left.length,
      of: due.length,
      next: left[0]?.specimen_id ?? null,
    };
  });
}

/**
 * Where inspectors who looked at the same zone differ, the farthest apart first: of the zones that the
 * one who asks has graded, so that nobody sees others' grades before giving their own.
 */
export function disagreements(
  due: readonly DueZone[],
  inspections: Inspections,
  findings: Findings,
  asks: string,
): Disagreement[] {
  const looked = groupBy(inspections, keyOf);
  const found = groupBy(findings, keyOf);
  return due
    .flatMap(({ specimen_id, zone_id }): Disagreement[] => {
      const key = keyOf({ specimen_id, zone_id });
      const eyes = looked.get(key) ?? [];
      if (eyes.length < 2 || !eyes.some(({ inspector }) => inspector === asks)) return [];
      const own = found.get(key) ?? [];
      return [...new Set(own.map((row) => row.defect))].flatMap((defect) => {
        const grades = eyes.map(({ inspector }) => ({
          inspector,
          grade:
            own.find((row) => row.inspector === inspector && row.defect === defect)?.grade ?? 0,
        }));
        const all = grades.map(({ grade }) => grade);
        const apart = Math.max(...all) - Math.min(...all);
        return apart === 0 ? [] : [{ specimen_id, zone_id, defect, grades, apart }];
      });
    })
    .sort((a, b) => b.apart - a.apart);
}

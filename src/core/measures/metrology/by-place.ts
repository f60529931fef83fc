import { meanOf } from '../../statistics/stats';
import { groupBy, withinArtefact } from '../../model/study';
import type { Cell, Measurements } from './cells';

/** One place of the plate on either side of a change. */
export interface PlaceChange {
  x_mm: number;
  y_mm: number;
  /** Mean deviations at this place, mm. */
  contender_mm: number;
  reference_mm: number;
  /** Contender less reference, mm. */
  difference_mm: number;
}

/**
 * What differs between two contenders place by place, by `artefact_id/dimension_id`: for looking at,
 * not for deciding. The places of one plate share its faults.
 */
export function byPlace(
  measurements: Measurements,
  contender: string,
  reference: string,
): Record<string, PlaceChange[]> {
  const of = (id: string) => groupBy(measurements.cellsOfContender.get(id) ?? [], dimensionOf);
  const theirs = of(reference);
  const found: Record<string, PlaceChange[]> = {};
  for (const [key, own] of of(contender)) {
    const before = groupBy(theirs.get(key) ?? [], placeOf);
    const changes = [...groupBy(own, placeOf)].flatMap(([place, cells]): PlaceChange[] => {
      const [specimen] = cells.map((cell) => cell.specimen);
      const other = before.get(place);
      if (!other || specimen?.plate_x_mm == null || specimen.plate_y_mm == null) return [];
      const contender_mm = meanOf(cells, (cell) => cell.deviation_mm);
      const reference_mm = meanOf(other, (cell) => cell.deviation_mm);
      return [
        {
          x_mm: specimen.plate_x_mm,
          y_mm: specimen.plate_y_mm,
          contender_mm,
          reference_mm,
          difference_mm: contender_mm - reference_mm,
        },
      ];
    });
    if (changes.length > 1) found[key] = changes;
  }
  return found;
}

const dimensionOf = ({ dimension }: Cell): string =>
  withinArtefact(dimension.artefact_id, dimension.dimension_id);
const placeOf = ({ specimen }: Cell): string => `${specimen.plate_x_mm} ${specimen.plate_y_mm}`;

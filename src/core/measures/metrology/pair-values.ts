import type { PrintValues } from '../../statistics/stats';
import type { Dimension } from '../../model/study';
import { ofCells, type Cell, type Measurements } from './cells';
import { printValues, specimenErrors } from './print-values';

/** The mean absolute errors of two contenders, over what both have measured. */
export interface AccuracyPair {
  contenderValues: PrintValues;
  referenceValues: PrintValues;
  /** The cells of each side that take part. */
  contenderCells: readonly Cell[];
  referenceCells: readonly Cell[];
}

/**
 * Per-print `mae_s` of two contenders over the dimensions that both have measured in a stratum.
 */
export function accuracyPair(
  measurements: Measurements,
  contender: string,
  reference: string,
): AccuracyPair {
  const own = measurements.cellsOfContender.get(contender) ?? [];
  const others = measurements.cellsOfContender.get(reference) ?? [];
  const contenderCells = within(own, placesOf(others));
  const referenceCells = within(others, placesOf(own));
  return {
    contenderValues: printValues(specimenErrors(contenderCells), 'mae_mm'),
    referenceValues: printValues(specimenErrors(referenceCells), 'mae_mm'),
    contenderCells,
    referenceCells,
  };
}

type Places = ReadonlyMap<string, ReadonlySet<Dimension>>;

/** The dimensions that were measured, by stratum. */
const placesOf = ofCells((cells): Places => {
  const places = new Map<string, Set<Dimension>>();
  for (const { stratum, dimension } of cells) {
    const own = places.get(stratum);
    if (own) own.add(dimension);
    else places.set(stratum, new Set([dimension]));
  }
  return places;
});

/** The cells that were measured on the other side too; all of them as they are where none falls away. */
function within(cells: readonly Cell[], others: Places): readonly Cell[] {
  const isWhole = [...placesOf(cells)].every(([stratum, own]) =>
    [...own].every((dimension) => others.get(stratum)?.has(dimension)),
  );
  return isWhole ? cells : cells.filter((cell) => others.get(cell.stratum)?.has(cell.dimension));
}

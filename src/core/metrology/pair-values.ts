import type { PrintValues } from '../stats';
import type { Dimension } from '../study';
import { byDimension, type Cell, type Measurements } from './cells';
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
 * Per-print `mae_s` of two contenders over the dimensions that both have measured on an artefact.
 */
export function accuracyPair(
  measurements: Measurements,
  contender: string,
  reference: string,
): AccuracyPair {
  const own = measurements.cellsOfContender.get(contender) ?? [];
  const others = measurements.cellsOfContender.get(reference) ?? [];
  const contenderCells = within(own, byDimension(others));
  const referenceCells = within(others, byDimension(own));
  return {
    contenderValues: printValues(specimenErrors(contenderCells), 'mae_mm'),
    referenceValues: printValues(specimenErrors(referenceCells), 'mae_mm'),
    contenderCells,
    referenceCells,
  };
}

/** The cells whose dimension is among some; all of them as they are where none falls away. */
function within(
  cells: readonly Cell[],
  dimensions: ReadonlyMap<Dimension, unknown>,
): readonly Cell[] {
  const isWhole = [...byDimension(cells).keys()].every((dimension) => dimensions.has(dimension));
  return isWhole ? cells : cells.filter((cell) => dimensions.has(cell.dimension));
}

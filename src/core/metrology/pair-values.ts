import type { PrintValues } from '../stats';
import type { Cell, Measurements } from './cells';
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
  const of = (id: string) => measurements.cellsOfContender.get(id) ?? [];
  const dimensionsOf = (cells: readonly Cell[]) => new Set(cells.map((cell) => cell.dimension));
  const common = dimensionsOf(of(reference));
  const own = dimensionsOf(of(contender));
  const shared = (cell: Cell) => common.has(cell.dimension) && own.has(cell.dimension);
  const contenderCells = of(contender).filter(shared);
  const referenceCells = of(reference).filter(shared);
  return {
    contenderValues: printValues(specimenErrors(contenderCells), 'mae_mm'),
    referenceValues: printValues(specimenErrors(referenceCells), 'mae_mm'),
    contenderCells,
    referenceCells,
  };
}

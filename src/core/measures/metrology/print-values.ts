import { groupBy } from '../../model/study';
import { gatherValues, meanOf, type PrintValues } from '../../statistics/stats';
import { ofCells } from './cells';

/** A specimen's mean deviation and mean absolute deviation over its cells. */
export interface SpecimenError {
  specimen_id: string;
  print_id: string;
  artefact_id: string;
  /** What the print is a repeat of. */
  stratum: string;
  bias_mm: number;
  mae_mm: number;
}

/** Mean error and mean absolute error of each specimen, diagonals included. */
export const specimenErrors = ofCells((cells): readonly SpecimenError[] =>
  [...groupBy(cells, (cell) => cell.specimen)].map(([specimen, own]) => ({
    specimen_id: specimen.specimen_id,
    print_id: specimen.print_id,
    artefact_id: own[0]?.print.artefact_id ?? '',
    stratum: own[0]?.stratum ?? '',
    bias_mm: meanOf(own, (cell) => cell.deviation_mm),
    mae_mm: meanOf(own, (cell) => Math.abs(cell.deviation_mm)),
  })),
);

/** Averages specimens to prints, and groups the prints by stratum. */
export function printValues(
  specimens: readonly SpecimenError[],
  figure: 'bias_mm' | 'mae_mm',
): PrintValues {
  const prints = [...groupBy(specimens, (specimen) => specimen.print_id).values()];
  return gatherValues(
    prints.map((own) => [own[0]?.stratum ?? '', meanOf(own, (specimen) => specimen[figure])]),
  );
}

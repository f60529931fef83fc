import { groupBy } from '../study';
import { meanOf, type PrintValues } from '../stats';
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
  const values = new Map<string, number[]>();
  for (const own of groupBy(specimens, (specimen) => specimen.print_id).values()) {
    const stratum = own[0]?.stratum ?? '';
    const value = meanOf(own, (specimen) => specimen[figure]);
    const group = values.get(stratum);
    if (group) group.push(value);
    else values.set(stratum, [value]);
  }
  return values;
}

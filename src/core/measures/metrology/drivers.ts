import { meanOf } from '../../statistics/stats';
import { groupBy } from '../../model/study';
import { accuracyPair } from './pair-values';
import { byDimension, byPrint, type Cell, type Measurements } from './cells';

/** What one dimension adds to the difference between two contenders. */
export interface Driver {
  artefact_id: string;
  dimension_id: string;
  /** Mean deviation of either side, mm: means over prints of means over specimens. */
  contender_mm: number;
  reference_mm: number;
  /** What it adds to the contender's mean absolute error less the reference's, mm. */
  share_mm: number;
}

/** Mean over prints of the mean over specimens. */
const overPrints = (cells: readonly Cell[], value: (cell: Cell) => number): number =>
  meanOf(byPrint(cells), (own) => meanOf(own, value));

/**
 * Which dimensions drive the difference of two contenders' mean absolute errors, over what both have
 * measured; largest share first. Where every print has every dimension the shares add up to the
 * difference: each is `(|e|_c − |e|_r)/(dimensions of the artefact · artefacts)`.
 */
export function driversOf(
  measurements: Measurements,
  contender: string,
  reference: string,
): Driver[] {
  const { contenderCells, referenceCells } = accuracyPair(measurements, contender, reference);
  const theirs = byDimension(referenceCells);
  const common = [...byDimension(contenderCells)].flatMap(([dimension, own]) => {
    const other = theirs.get(dimension);
    return other ? [{ dimension, own, other }] : [];
  });
  const perArtefact = groupBy(common, ({ dimension }) => dimension.artefact_id);
  const size = (cell: Cell) => Math.abs(cell.deviation_mm);
  return common
    .map(({ dimension: { artefact_id, dimension_id }, own, other }): Driver => {
      const dimensions = perArtefact.get(artefact_id)?.length ?? 1;
      return {
        artefact_id,
        dimension_id,
        contender_mm: overPrints(own, (cell) => cell.deviation_mm),
        reference_mm: overPrints(other, (cell) => cell.deviation_mm),
        share_mm:
          (overPrints(own, size) - overPrints(other, size)) / (dimensions * perArtefact.size),
      };
    })
    .sort((a, b) => Math.abs(b.share_mm) - Math.abs(a.share_mm));
}

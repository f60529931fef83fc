import {
  gatherValues,
  meanOf,
  oneSideInterval,
  unknownInterval,
  type Interval,
} from '../../statistics/stats';
import { groupBy, type Row, type StudyIndex } from '../../model/study';
import type { Cell, Measurements } from './cells';

/** Whether a square comes out square. */
export interface Squareness {
  /** Specimens with both diagonals. */
  specimens: number;
  /** Angle between the axes less 90°, degrees, over prints. */
  angle_deg: Interval;
  /** The same as a shift over 100 mm, mm. */
  mm_per_100mm: number | null;
}

/** Squareness of every contender, by `artefact/square`. */
export function squarenessOfAll(
  index: StudyIndex,
  measurements: Measurements,
  alpha: number,
): Record<string, Record<string, Squareness>> {
  const { contenders, squares } = index.study.tables;
  return Object.fromEntries(
    contenders.map(({ contender_id }) => {
      const cells = measurements.cellsOfContender.get(contender_id) ?? [];
      return [
        contender_id,
        Object.fromEntries(
          squares.map((square) => [
            `${square.artefact_id}/${square.square_id}`,
            squarenessOf(square, cells, alpha),
          ]),
        ),
      ];
    }),
  );
}

/**
 * The angle error `asin((d₁² − d₂²)/(4ab))` per specimen, then print means by stratum and the
 * one-side rule.
 */
function squarenessOf(square: Row<'squares'>, cells: readonly Cell[], alpha: number): Squareness {
  const own = cells.filter((cell) => cell.print.artefact_id === square.artefact_id);
  const angles = [...groupBy(own, (cell) => cell.specimen).values()].flatMap((group) => {
    const size = (id: string) => group.find((cell) => cell.dimension.dimension_id === id)?.mean_mm;
    const [a, b, d1, d2] = [square.side_a, square.side_b, square.diagonal_1, square.diagonal_2].map(
      size,
    );
    const [first] = group;
    if (!first || !a || !b || d1 === undefined || d2 === undefined) return [];
    const sine = (d1 * d1 - d2 * d2) / (4 * a * b);
    return Math.abs(sine) > 1 ? [] : [{ ...first, deg: (Math.asin(sine) * 180) / Math.PI }];
  });
  if (angles.length === 0) {
    const notes = 'no specimen with both sides and both diagonals measured';
    return { specimens: 0, angle_deg: unknownInterval(notes), mm_per_100mm: null };
  }
  const prints = [...groupBy(angles, (one) => one.print).values()];
  const values = gatherValues(
    prints.map((group) => [group[0]?.stratum ?? '', meanOf(group, (one) => one.deg)]),
  );
  const angle_deg = oneSideInterval(values, alpha);
  const radians = ((angle_deg.estimate ?? 0) * Math.PI) / 180;
  return { specimens: angles.length, angle_deg, mm_per_100mm: 100 * Math.tan(radians) };
}

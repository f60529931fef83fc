import { fUpperP, leastSquares, mean, meanOf, sumOfSquares } from '../../statistics/stats';
import type { StudyIndex } from '../../model/study';
import { byDimension, byPrint, type Cell, type Measurements } from './cells';

/** How a dimension's deviation goes over the plate. */
export interface PlateFit {
  /** Placed specimens. */
  n: number;
  /** Prints that they come from. */
  prints: number;
  /** Mean deviation, mm. */
  mean_mm: number;
  /** Standard deviation over the places, mm. */
  sd_mm: number;
  /** Largest less smallest, mm. */
  range_mm: number;
  /** µm per 100 mm of plate. */
  gradient_x_um_per_100mm: number | null;
  gradient_y_um_per_100mm: number | null;
  /** p of no gradient at all, by the F test. */
  trend_p: number | null;
  /** What is not known, in words. */
  notes: string[];
}

const FEWEST = 4;

/** The plate of every contender, by `artefact/dimension` with at least four placed specimens. */
export function plateOfAll(
  index: StudyIndex,
  measurements: Measurements,
): Record<string, Record<string, PlateFit>> {
  return Object.fromEntries(
    index.study.tables.contenders.map(({ contender_id }) => {
      const cells = measurements.cellsOfContender.get(contender_id) ?? [];
      const groups = [...byDimension(cells)].map(
        ([dimension, group]) => [dimension, placed(group)] as const,
      );
      return [
        contender_id,
        Object.fromEntries(
          groups
            .filter(([, group]) => group.length >= FEWEST)
            .map(([dimension, group]) => [
              `${dimension.artefact_id}/${dimension.dimension_id}`,
              fitPlate(group),
            ]),
        ),
      ];
    }),
  );
}

/** The cells whose place on the plate is known; all of them as they are where it is of all. */
function placed(cells: readonly Cell[]): readonly Cell[] {
  const isPlaced = ({ specimen }: Cell) =>
    specimen.plate_x_mm !== null && specimen.plate_y_mm !== null;
  return cells.every(isPlaced) ? cells : cells.filter(isPlaced);
}

/** Why nothing can be said of a tilt. */
export const NO_GRADIENT = 'too few places, or all on one line: no gradient';

/** Fits `e = a(print) + b·x + c·y`; deviations and places are taken from their print's means. */
function fitPlate(cells: readonly Cell[]): PlateFit {
  const e = cells.map((cell) => cell.deviation_mm);
  const prints = byPrint(cells);
  const centred = (valueOf: (cell: Cell) => number) => {
    const all: number[] = [];
    for (const group of prints) {
      const centre = meanOf(group, valueOf);
      for (const cell of group) all.push(valueOf(cell) - centre);
    }
    return all;
  };
  const own = centred((cell) => cell.deviation_mm);
  const fit = leastSquares(
    [
      centred((cell) => cell.specimen.plate_x_mm ?? 0),
      centred((cell) => cell.specimen.plate_y_mm ?? 0),
    ],
    own,
  );
  const df = cells.length - prints.length - 2;
  const isFitted = fit !== null && df > 0;
  const before = own.reduce((sum, value) => sum + value * value, 0);
  const trend = () => {
    if (!isFitted) return null;
    if (fit.rss === 0) return before === 0 ? 1 : 0;
    return fUpperP((before - fit.rss) / 2 / (fit.rss / df), 2, df);
  };
  return {
    n: cells.length,
    prints: prints.length,
    mean_mm: mean(e),
    sd_mm: Math.sqrt(sumOfSquares(e) / (e.length - 1)),
    range_mm: Math.max(...e) - Math.min(...e),
    gradient_x_um_per_100mm: isFitted ? 1e5 * (fit.coefficients[0] ?? 0) : null,
    gradient_y_um_per_100mm: isFitted ? 1e5 * (fit.coefficients[1] ?? 0) : null,
    trend_p: trend(),
    notes: isFitted ? [] : [NO_GRADIENT],
  };
}

import {
  AXES,
  DIMENSION_KINDS,
  groupBy,
  type Axis,
  type DimensionKind,
  type StudyIndex,
  recordOf,
} from '../../model/study';
import {
  maxAbs,
  meanOf,
  oneSideInterval,
  unknownInterval,
  type Interval,
} from '../../statistics/stats';
import { fitAxis, type AxisFit, type AxisPoint } from './axis-fit';
import {
  byDimension,
  byPrint,
  cellUncertainty,
  pooledDeviation,
  readInCells,
  type Cell,
  type Measurements,
  type UncertaintyGaps,
} from './cells';
import { printValues, specimenErrors, type SpecimenError } from './print-values';
import { judgeTolerance, type ToleranceState } from './tolerance';
import { SIZE_BANDS, sizeBand, type SizeBand } from './size-bands';
import { toleranceClass } from './tolerance-class';

/** Mean and mean absolute deviation of some cells. */
export interface GroupError {
  /** Cells of the group. */
  n: number;
  /** Mean deviation, mm; positive is too large. Null without cells. */
  bias_mm: number | null;
  /** Mean absolute deviation, mm. */
  mae_mm: number | null;
}

export interface CellResult {
  specimen_id: string;
  dimension_id: string;
  /** Readings that count. */
  n: number;
  /** Mean of the readings, mm. */
  mean_mm: number;
  /** Mean less nominal, mm; positive is too large. */
  deviation_mm: number;
  /** Standard uncertainty of the mean (k = 1), mm; null where it is not known. */
  u_mm: number | null;
  /** Inside, outside, or undecided within 2 u; null without limits. */
  in_tolerance: ToleranceState | null;
}

/** How true a contender's parts are to their nominal sizes. */
export interface Accuracy {
  /** Prints with a cell. */
  prints: number;
  /** Specimens with a cell. */
  specimens: number;
  /** Different dimensions read. */
  dimensions: number;
  /** Readings that count. */
  readings: number;
  /** Mean deviation, mm, over the means of prints; positive is too large. */
  bias_mm: Interval;
  /** Mean absolute deviation, mm, over the means of prints. */
  mae_mm: Interval;
  /** Root of the mean square of all cells’ deviations, mm. */
  rmse_mm: number | null;
  /** Largest absolute deviation of a cell, mm. */
  max_abs_mm: number | null;
  /** Mean of |deviation|/nominal, %. */
  mean_abs_pct: number | null;
  /** Pooled standard deviation of a dimension over repeats, mm. */
  repeatability_mm: number | null;
  /** What remains of the mean square when repeatability is taken out, mm. */
  systematic_mm: number | null;
  /** Tolerance class whose zone holds the deviations, as ISO 286 names it: `IT12`. */
  it_grade: string | null;
  /** The same as a number of tolerance units, 2000·|e|/i. */
  it_value: number | null;
  /** Whether 95 % of the deviations are held, or all of them (fewer than 20 cells). */
  it_basis: 'p95' | 'max';
  /** Cells inside, outside and undecided. */
  tolerance: Record<ToleranceState, number>;
  /** Along each axis: mean deviation of externals, bosses and heights; mean |deviation| and n of all cells, mm. */
  by_axis: Record<Axis, GroupError>;
  /** The same for each kind of dimension. */
  by_kind: Record<DimensionKind, GroupError>;
  /** The same for ranges of nominal size. */
  by_size: Record<SizeBand, GroupError>;
  /** Why lengths along each axis are off, and what would mend it. */
  fit: Record<Axis, AxisFit>;
  /** The same for each type of material, where the prints are of several: each shrinks in its own way. */
  fit_by_type: Readonly<Record<string, Record<Axis, AxisFit>>> | null;
  /** Errors of each specimen. */
  by_specimen: readonly SpecimenError[];
  /** Every cell. */
  cells: CellResult[];
  /** What is not known or was left out, in words. */
  notes: string[];
}

/** Accuracy of every contender of the study, those without readings among them. */
export function accuracyOfAll(
  index: StudyIndex,
  measurements: Measurements,
  alpha: number,
): Record<string, Accuracy> {
  return Object.fromEntries(
    index.study.tables.contenders.map(({ contender_id }) => [
      contender_id,
      accuracyOf(index, measurements, measurements.cellsOfContender.get(contender_id) ?? [], alpha),
    ]),
  );
}

function accuracyOf(
  index: StudyIndex,
  measurements: Measurements,
  cells: readonly Cell[],
  alpha: number,
): Accuracy {
  const gaps: UncertaintyGaps = { scatter: new Set(), certificate: new Set() };
  const results = cells.map((cell): CellResult => {
    const u_mm = cellUncertainty(cell, measurements.repeatability, index.instruments, gaps);
    const { lower_tol_mm, upper_tol_mm } = cell.dimension;
    return {
      specimen_id: cell.specimen.specimen_id,
      dimension_id: cell.dimension.dimension_id,
      n: cell.values.length,
      mean_mm: cell.mean_mm,
      deviation_mm: cell.deviation_mm,
      u_mm,
      in_tolerance: judgeTolerance(cell.deviation_mm, lower_tol_mm, upper_tol_mm, u_mm),
    };
  });
  const specimens = specimenErrors(cells);
  const types = new Set(byPrint(cells).flatMap(([cell]) => (cell ? index.typeOf(cell.print) : [])));
  const deviations = cells.map((cell) => cell.deviation_mm);
  const zone = toleranceClass(
    cells.map((cell) => ({
      nominal_mm: cell.dimension.nominal_mm,
      deviation_mm: cell.deviation_mm,
    })),
  );
  const isEmpty = cells.length === 0;
  const repeatability = pooledDeviation(readInCells(cells));
  const notes = isEmpty
    ? ['no readings']
    : [
        ...zone.notes,
        ...instrumentNotes(index, cells, gaps, results),
        ...(repeatability === null ? ['no dimension was read twice: no repeatability'] : []),
      ];
  return {
    prints: new Set(specimens.map((specimen) => specimen.print_id)).size,
    specimens: specimens.length,
    dimensions: byDimension(cells).size,
    readings: cells.reduce((total, cell) => total + cell.values.length, 0),
    bias_mm: isEmpty
      ? unknownInterval('no readings')
      : oneSideInterval(printValues(specimens, 'bias_mm'), alpha),
    mae_mm: isEmpty
      ? unknownInterval('no readings')
      : oneSideInterval(printValues(specimens, 'mae_mm'), alpha),
    rmse_mm: isEmpty ? null : Math.sqrt(meanOf(deviations, (deviation) => deviation ** 2)),
    max_abs_mm: isEmpty ? null : maxAbs(deviations),
    mean_abs_pct: isEmpty
      ? null
      : meanOf(cells, (cell) => Math.abs((100 * cell.deviation_mm) / cell.dimension.nominal_mm)),
    repeatability_mm: repeatability,
    systematic_mm: systematicPart(index, cells),
    it_grade: zone.it_grade,
    it_value: zone.it_value,
    it_basis: zone.it_basis,
    tolerance: {
      inside: results.filter((cell) => cell.in_tolerance === 'inside').length,
      outside: results.filter((cell) => cell.in_tolerance === 'outside').length,
      undecided: results.filter((cell) => cell.in_tolerance === 'undecided').length,
    },
    by_axis: groupErrors(cells, AXES, (cell) => cell.dimension.axis, isOutward),
    by_kind: groupErrors(cells, DIMENSION_KINDS, (cell) => cell.dimension.kind),
    by_size: groupErrors(cells, SIZE_BANDS, (cell) => sizeBand(cell.dimension.nominal_mm)),
    fit: fitsOf(cells, alpha, (fit) => withMaterials(fit, types)),
    fit_by_type:
      types.size < 2
        ? null
        : Object.fromEntries(
            [...types].sort().map((type) => [type, fitsOf(cellsOfType(index, cells, type), alpha)]),
          ),
    by_specimen: specimens,
    cells: results,
    notes,
  };
}

/** The cells of prints in a type of material. */
export const cellsOfType = (
  index: StudyIndex,
  cells: readonly Cell[],
  type: string,
): readonly Cell[] => cells.filter((cell) => index.typeOf(cell.print) === type);

const fitsOf = (
  cells: readonly Cell[],
  alpha: number,
  noted = (fit: AxisFit): AxisFit => fit,
): Record<Axis, AxisFit> =>
  recordOf(AXES, (axis) => noted(fitAxis(axisPoints(cells, axis), alpha)));

/** A fit with a note where it is over several materials, whose shrinkage differs. */
const withMaterials = (fit: AxisFit, types: ReadonlySet<string>): AxisFit =>
  types.size < 2
    ? fit
    : {
        ...fit,
        notes: [
          ...fit.notes,
          `mixes the shrinkage of several materials: ${[...types].sort().join(', ')}`,
        ],
      };

/** Kinds that grow where too much is printed: slots and holes shrink with it and would hide it. */
const OUTWARD: ReadonlySet<DimensionKind> = new Set(['external', 'boss', 'height']);

/** Whether a cell counts for the mean deviation along its axis. */
export const isOutward = ({ dimension }: Cell): boolean => OUTWARD.has(dimension.kind);

function groupErrors<Key extends string>(
  cells: readonly Cell[],
  keys: readonly Key[],
  keyOf: (cell: Cell) => Key,
  isOfBias: (cell: Cell) => boolean = () => true,
): Record<Key, GroupError> {
  const groups = groupBy(cells, keyOf);
  return recordOf(keys, (key) => {
    const group = groups.get(key) ?? [];
    const isEmpty = group.length === 0;
    const signed = group.filter(isOfBias);
    return {
      n: group.length,
      bias_mm: signed.length === 0 ? null : meanOf(signed, (cell) => cell.deviation_mm),
      mae_mm: isEmpty ? null : meanOf(group, (cell) => Math.abs(cell.deviation_mm)),
    };
  });
}

/** The means of an axis' dimensions: over the prints, of each print's mean deviation. */
export function axisPoints(cells: readonly Cell[], axis: Axis): AxisPoint[] {
  return [...byDimension(cells)].flatMap(([{ axis: own, kind, nominal_mm }, group]) => {
    if (own !== axis || kind === 'diagonal') return [];
    const deviation_mm = meanOf(byPrint(group), (print) =>
      meanOf(print, (cell) => cell.deviation_mm),
    );
    return [{ nominal_mm, kind, deviation_mm }];
  });
}

/** The largest expanded uncertainty among the instruments used, mm. */
function systematicPart(index: StudyIndex, cells: readonly Cell[]): number | null {
  const known = [...instrumentsUsed(cells)].flatMap((id) => {
    const expanded = index.instruments.get(id ?? '')?.expanded_uncertainty_mm ?? null;
    return expanded === null ? [] : [expanded];
  });
  return known.length === 0 ? null : Math.max(...known);
}

const instrumentsUsed = (cells: readonly Cell[]): Set<string | null> => {
  const used = new Set<string | null>();
  for (const cell of cells) for (const { instrument } of cell.byInstrument) used.add(instrument);
  return used;
};

function instrumentNotes(
  index: StudyIndex,
  cells: readonly Cell[],
  gaps: UncertaintyGaps,
  results: readonly CellResult[],
): string[] {
  const notes: string[] = [];
  const list = (names: Iterable<string>) => [...names].sort().join(', ');
  const noZero = [...instrumentsUsed(cells)]
    .filter((id) => (index.instruments.get(id ?? '')?.zero_mm ?? null) === null)
    .map((id) => id ?? 'no instrument named');
  if (noZero.length > 0) notes.push(`zero not known, taken as 0: ${list(noZero)}`);
  if (gaps.scatter.size > 0) {
    notes.push(`neither repeatability nor resolution known: ${list(gaps.scatter)}`);
  }
  if (gaps.certificate.size > 0) {
    notes.push(`expanded uncertainty not known, left out: ${list(gaps.certificate)}`);
  }
  if (results.some((cell) => cell.u_mm === null && cell.in_tolerance !== null)) {
    notes.push('tolerances judged without uncertainty where none is known');
  }
  return notes;
}

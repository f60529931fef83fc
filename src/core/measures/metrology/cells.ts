import {
  groupBy,
  type Dimension,
  type Instrument,
  type Print,
  type Reading,
  type Specimen,
  type StudyIndex,
} from '../../model/study';
import { mean, sumOfSquares } from '../../statistics/stats';

/** One dimension on one specimen, with the readings that count. */
export interface Cell {
  dimension: Dimension;
  specimen: Specimen;
  print: Print;
  /** What the print is a repeat of. */
  stratum: string;
  readings: readonly Reading[];
  /** Readings less the zero of their instrument, in mm. */
  values: readonly number[];
  /** The same by the instrument that read them; null where none is named. */
  byInstrument: readonly InstrumentValues[];
  mean_mm: number;
  /** Mean less nominal, in mm; positive is too large. */
  deviation_mm: number;
}

/** What one instrument read of a cell. */
export interface InstrumentValues {
  instrument: string | null;
  values: readonly number[];
  /** Sum of their squared deviations from their mean, mm². */
  squares_mm2: number;
}

/** The readings of a study as cells, and what its instruments repeat. */
export interface Measurements {
  cells: readonly Cell[];
  cellsOfContender: ReadonlyMap<string, readonly Cell[]>;
  /** What each instrument read, cell by cell; null of readings that name none. */
  readBy: ReadonlyMap<string | null, readonly InstrumentValues[]>;
  /** Repeatability standard deviation of each instrument in this study, mm. */
  repeatability: ReadonlyMap<string | null, number>;
}

/** Forms the cells of a study from the readings that are not superseded. */
export function measure(index: StudyIndex): Measurements {
  const cells: Cell[] = [];
  const measuredOf = specimenFinder(index);
  for (const readings of readingsByPlace(index.study.tables.readings)) {
    const cell = formCell(index, measuredOf, readings);
    if (cell) cells.push(cell);
  }
  const readBy = groupBy(readInCells(cells), (own) => own.instrument);
  return {
    cells,
    readBy,
    cellsOfContender: groupBy(cells, (cell) => cell.print.contender_id),
    repeatability: instrumentRepeatability(readBy),
  };
}

/** The readings that count by specimen and dimension, in the order of their first ones. */
function readingsByPlace(all: readonly Reading[]): Reading[][] {
  const places: Reading[][] = [];
  const bySpecimen = new Map<string, Map<string, Reading[]>>();
  let ofSpecimen = new Map<string, Reading[]>();
  let specimen: string | null = null;
  for (const row of all) {
    if (row.superseded_at !== null) continue;
    // A specimen is read from end to end, as a rule.
    if (row.specimen_id !== specimen) {
      specimen = row.specimen_id;
      ofSpecimen = bySpecimen.get(specimen) ?? new Map<string, Reading[]>();
      if (ofSpecimen.size === 0) bySpecimen.set(specimen, ofSpecimen);
    }
    const place = ofSpecimen.get(row.dimension_id);
    if (place) {
      place.push(row);
      continue;
    }
    const first = [row];
    ofSpecimen.set(row.dimension_id, first);
    places.push(first);
  }
  return places;
}

/** A specimen with the dimensions of its artefact that are in use. */
interface Measured {
  specimen: Specimen;
  print: Print;
  dimensions: ReadonlyMap<string, Dimension>;
}

/** Finds specimens; the one that was found last is at hand. */
function specimenFinder(index: StudyIndex): (specimenId: string) => Measured | null {
  const byArtefact = groupBy(index.dimensions.values(), (row) => row.artefact_id);
  const dimensionsOf = new Map(
    [...byArtefact].map(([id, rows]) => [id, new Map(rows.map((row) => [row.dimension_id, row]))]),
  );
  const find = (specimenId: string): Measured | null => {
    const specimen = index.specimens.get(specimenId);
    const print = specimen && index.prints.get(specimen.print_id);
    const dimensions = print && dimensionsOf.get(print.artefact_id);
    return dimensions ? { specimen, print, dimensions } : null;
  };
  let last = '';
  let found: Measured | null = null;
  return (specimenId) => {
    if (specimenId !== last) [last, found] = [specimenId, find(specimenId)];
    return found;
  };
}

function formCell(
  index: StudyIndex,
  measuredOf: (specimenId: string) => Measured | null,
  readings: readonly Reading[],
): Cell | null {
  const [first] = readings;
  const measured = first && measuredOf(first.specimen_id);
  const dimension = measured?.dimensions.get(first?.dimension_id ?? '');
  if (!first || !measured || !dimension) return null;
  const { specimen, print } = measured;
  let zero_mm = zeroOf(index, first.instrument_id);
  let zeroed = first.instrument_id;
  const values = readings.map((row) => {
    if (row.instrument_id !== zeroed) {
      zeroed = row.instrument_id;
      zero_mm = zeroOf(index, zeroed);
    }
    return row.value_mm - zero_mm;
  });
  const mean_mm = mean(values);
  return {
    dimension,
    specimen,
    print,
    stratum: index.stratumOf(print),
    readings,
    values,
    byInstrument: valuesByInstrument(readings, values),
    mean_mm,
    deviation_mm: mean_mm - dimension.nominal_mm,
  };
}

/**
 * A figure of a list of cells that is computed once for each list: such lists are never changed, and
 * many sections ask the same of them.
 */
export function ofCells<Result>(
  compute: (cells: readonly Cell[]) => Result,
): (cells: readonly Cell[]) => Result {
  const known = new WeakMap<readonly Cell[], { result: Result }>();
  return (cells) => {
    let kept = known.get(cells);
    if (!kept) known.set(cells, (kept = { result: compute(cells) }));
    return kept.result;
  };
}

/** Cells by their dimension, in the order of the first ones. */
export const byDimension = ofCells((cells): ReadonlyMap<Dimension, readonly Cell[]> =>
  groupBy(cells, (cell) => cell.dimension),
);

/** Cells print by print, in the order of the first ones. */
export const byPrint = ofCells((cells): readonly (readonly Cell[])[] => [
  ...groupBy(cells, (cell) => cell.print).values(),
]);

const zeroOf = (index: StudyIndex, instrumentId: string | null): number =>
  index.instruments.get(instrumentId ?? '')?.zero_mm ?? 0;

function valuesByInstrument(
  readings: readonly Reading[],
  values: readonly number[],
): readonly InstrumentValues[] {
  const instrument = readings[0]?.instrument_id ?? null;
  // All by one instrument is what is usual.
  if (readings.every((row) => row.instrument_id === instrument))
    return [readBy(instrument, values)];
  return [...groupBy(readings.entries(), ([, row]) => row.instrument_id)].map(([id, group]) =>
    readBy(
      id,
      group.map(([at]) => values[at] ?? 0),
    ),
  );
}

const readBy = (instrument: string | null, values: readonly number[]): InstrumentValues => ({
  instrument,
  values,
  squares_mm2: sumOfSquares(values),
});

/** Pools `s² = Σ(n − 1)s²/Σ(n − 1)` over groups with at least two values; null without one. */
export function pooledDeviation(groups: readonly InstrumentValues[]): number | null {
  let squares = 0;
  let df = 0;
  for (const { values, squares_mm2 } of groups) {
    if (values.length < 2) continue;
    squares += squares_mm2;
    df += values.length - 1;
  }
  return df === 0 ? null : Math.sqrt(squares / df);
}

/** What instruments read of cells, cell by cell. */
export function readInCells(cells: readonly Cell[]): InstrumentValues[] {
  const read: InstrumentValues[] = [];
  for (const cell of cells) for (const own of cell.byInstrument) read.push(own);
  return read;
}

function instrumentRepeatability(
  readBy: ReadonlyMap<string | null, readonly InstrumentValues[]>,
): Map<string | null, number> {
  const repeatability = new Map<string | null, number>();
  for (const [instrument, own] of readBy) {
    const pooled = pooledDeviation(own);
    if (pooled !== null) repeatability.set(instrument, pooled);
  }
  return repeatability;
}

/** What is not known of the instruments behind a cell's uncertainty. */
export interface UncertaintyGaps {
  scatter: Set<string>;
  certificate: Set<string>;
}

/**
 * Standard uncertainty of a cell's mean in mm: over its instruments j,
 * `u² = Σ (n_j/n)²·(max(s_pj²/n_j, r_j²/12) + (U_j/2)²)`. A part that is not known is left out and
 * put down in `gaps`; null where no part is known.
 *
 * @see JCGM 100:2008, Guide to the expression of uncertainty in measurement, 4.3 and 5.1
 */
export function cellUncertainty(
  cell: Cell,
  repeatability: ReadonlyMap<string | null, number>,
  instruments: ReadonlyMap<string, Instrument>,
  gaps: UncertaintyGaps,
): number | null {
  const n = cell.values.length;
  let variance = 0;
  let isKnown = false;
  for (const { instrument: instrumentId, values } of cell.byInstrument) {
    const instrument = instruments.get(instrumentId ?? '');
    const name = instrumentId ?? 'no instrument named';
    const scatter = repeatability.get(instrumentId);
    const resolution = instrument?.resolution_mm ?? null;
    // The larger of the two: what it scatters, and what it cannot show.
    let own = 0;
    if (scatter !== undefined) own = scatter ** 2 / values.length;
    if (resolution !== null) own = Math.max(own, resolution ** 2 / 12);
    const isStated = scatter !== undefined || resolution !== null;
    if (!isStated) gaps.scatter.add(name);
    const expanded = instrument?.expanded_uncertainty_mm ?? null;
    if (expanded === null) gaps.certificate.add(name);
    else own += (expanded / 2) ** 2;
    isKnown ||= isStated || expanded !== null;
    variance += (values.length / n) ** 2 * own;
  }
  return isKnown ? Math.sqrt(variance) : null;
}

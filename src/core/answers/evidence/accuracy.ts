import {
  accuracyPair,
  axisPoints,
  cellUncertainty,
  printValues,
  SIZE_BANDS,
  sizeBand,
  specimenErrors,
  type Cell,
  type Measurements,
  isOutward,
} from '../../measures/metrology';
import { oneSideInterval, type Interval } from '../../statistics/stats';
import { AXES, DIMENSION_KINDS, groupBy, type Axis, type StudyIndex } from '../../model/study';
import { byStratum } from './strata';
import { evidenceTable, type Evidence, type EvidenceTable } from './evidence';

const mm = (value: number, digits = 3): string => value.toFixed(digits).replace('-', '−');

const say = (interval: Interval, unit: string): string =>
  interval.estimate === null
    ? 'not known'
    : interval.low === null || interval.high === null
      ? `${interval.estimate.toFixed(3)} ${unit}, no interval`
      : `${interval.estimate.toFixed(3)} ${unit} (${interval.low.toFixed(3)} … ${interval.high.toFixed(3)})`;

const codeOf = (cell: Cell): string => cell.specimen.code ?? cell.specimen.specimen_id;

function readingsTable(
  index: StudyIndex,
  { repeatability }: Measurements,
  cells: readonly Cell[],
): EvidenceTable {
  const ordered = [...cells].sort((a, b) => Math.abs(b.deviation_mm) - Math.abs(a.deviation_mm));
  return evidenceTable(
    'Cells, the largest deviation first',
    [
      'specimen',
      'dimension',
      ['nominal mm'],
      { label: 'readings mm', isFigure: true, isList: true },
      ['mean mm'],
      ['deviation mm'],
      ['u mm'],
      { label: 'by, with', isList: true },
    ],
    ordered.map((cell) => [
      codeOf(cell),
      cell.dimension.name,
      mm(cell.dimension.nominal_mm, 2),
      cell.readings.map((row) => row.value_mm.toFixed(2)).join(' · '),
      mm(cell.mean_mm),
      mm(cell.deviation_mm),
      uncertaintyOf(index, repeatability, cell),
      whoAndWhat(index, cell),
    ]),
  );
}

/** By whom a cell was read and with what, each once. */
function whoAndWhat({ instruments }: StudyIndex, { readings }: Cell): string {
  const people = new Set(readings.flatMap((row) => row.operator ?? []));
  const gauges = new Set(
    readings.flatMap(({ instrument_id: id }) => (id ? (instruments.get(id)?.name ?? id) : [])),
  );
  return [[...people].join(', '), [...gauges].join(', ')].filter(Boolean).join(' · ');
}

/** The standard uncertainty of a cell's mean; what of it is not known, the results note. */
function uncertaintyOf(
  { instruments }: StudyIndex,
  repeatability: Measurements['repeatability'],
  cell: Cell,
): string {
  const gaps = { scatter: new Set<string>(), certificate: new Set<string>() };
  const u_mm = cellUncertainty(cell, repeatability, instruments, gaps);
  return u_mm === null ? 'not known' : mm(u_mm);
}

function printsTable(index: StudyIndex, cells: readonly Cell[]): EvidenceTable {
  const specimens = groupBy(specimenErrors(cells), (row) => row.print_id);
  return evidenceTable(
    'Prints: the sample',
    ['artefact and material', 'print', ['repeat'], ['specimens'], ['MAE mm'], ['bias mm']],
    byStratum(index, [...specimens.entries()], ([id]) => id).map(({ item, stratum }) => {
      const [printId, own] = item;
      const print = index.prints.get(printId);
      return [
        stratum,
        printId,
        print?.repeat ?? null,
        own.length,
        mm(own.reduce((total, row) => total + row.mae_mm, 0) / own.length, 4),
        mm(own.reduce((total, row) => total + row.bias_mm, 0) / own.length, 4),
      ];
    }),
  );
}

/** Evidence of a contender's mean absolute deviation. */
export function accuracyEvidence(
  index: StudyIndex,
  measurements: Measurements,
  contenderId: string,
  alpha: number,
): Evidence {
  const cells = measurements.cellsOfContender.get(contenderId) ?? [];
  const values = printValues(specimenErrors(cells), 'mae_mm');
  const over =
    values.size === 1
      ? 'of one artefact in one material'
      : `over ${values.size} pairs of artefact and material`;
  return {
    title: 'Mean absolute deviation',
    sentence: `${say(oneSideInterval(values, alpha), 'mm')} from ${cells.length} cells, ${over}.`,
    formula:
      'Readings are averaged to a cell, |mean − nominal| over the cells of a specimen, specimens ' +
      'to their print; the figure is the mean over strata of the means of their prints, the ' +
      'interval from t over prints.',
    tables: [printsTable(index, cells), readingsTable(index, measurements, cells)],
    notes: [],
  };
}

/** Evidence of the mean deviation along an axis or of a kind. */
export function groupEvidence(
  index: StudyIndex,
  measurements: Measurements,
  contenderId: string,
  group: string,
): Evidence | null {
  const is = (words: readonly string[]) => words.includes(group);
  const by = is(AXES) ? 'axis' : is(DIMENSION_KINDS) ? 'kind' : is(SIZE_BANDS) ? 'size' : null;
  if (by === null) return null;
  const groupOf = ({ dimension }: Cell): string =>
    by === 'size' ? sizeBand(dimension.nominal_mm) : dimension[by];
  const cells = (measurements.cellsOfContender.get(contenderId) ?? []).filter(
    (cell) => groupOf(cell) === group,
  );
  return {
    title:
      by === 'size'
        ? `Mean absolute deviation, sizes ${group.replace('-', ' ')} mm`
        : `Mean deviation, ${by} ${group}`,
    sentence:
      by === 'axis'
        ? `Plain mean over the ${cells.filter(isOutward).length} of ${cells.length} cells that are ` +
          'externals, bosses or heights: slots and holes shrink where these grow. Positive is too ' +
          'large.'
        : `Plain mean over ${cells.length} cells; positive is too large.`,
    formula:
      by === 'size'
        ? 'mean |e| over the cells of the group, e = mean of the readings − nominal.'
        : 'e = mean of the readings − nominal, averaged over the cells of the group.',
    tables: [readingsTable(index, measurements, cells)],
    notes: [],
  };
}

/** Evidence of the cells that are outside, inside or undecided, and of the tolerance class. */
export function toleranceEvidence(
  index: StudyIndex,
  measurements: Measurements,
  contenderId: string,
): Evidence {
  const cells = measurements.cellsOfContender.get(contenderId) ?? [];
  return {
    title: 'Tolerances and tolerance grade',
    sentence:
      'The class is the finest ISO 286 grade whose symmetric zone would hold 95 % of the ' +
      'deviations (all of them with fewer than 20 cells).',
    formula:
      'value = 2000·|e|/i with i = 0.45·∛D + 0.001·D µm, D the geometric mean of the size range. ' +
      'A cell is undecided where a limit lies within two standard uncertainties.',
    tables: [readingsTable(index, measurements, cells)],
    notes: [],
  };
}

/** Evidence of the fit of deviation on nominal size along an axis. */
export function fitEvidence(cells: readonly Cell[], axis: Axis): Evidence {
  return {
    title: `Why it is off, axis ${axis}`,
    sentence: 'Each row is one dimension: the mean over prints of the mean deviation of a print.',
    formula:
      'e = β·nominal + δ·k + η·h by least squares: k = +1 for outer sizes and heights, −1 for ' +
      'inner ones, h = 1 for round holes. Scale is 1 + β, walls are δ too fat, holes lose η ' +
      'beyond that.',
    tables: [
      evidenceTable(
        'Dimensions of the fit',
        ['kind', ['nominal mm'], ['mean deviation mm']],
        axisPoints(cells, axis).map((point) => [
          point.kind,
          mm(point.nominal_mm, 2),
          mm(point.deviation_mm, 4),
        ]),
      ),
    ],
    notes: [],
  };
}

/** Evidence of the verdict between a contender and the reference. */
export function accuracyPairEvidence(
  index: StudyIndex,
  measurements: Measurements,
  contenderId: string,
  reference: string,
): Evidence {
  const pair = accuracyPair(measurements, contenderId, reference);
  return {
    title: 'Verdict on accuracy',
    sentence:
      'Only dimensions that both have measured take part; what one side lacks is left out on both.',
    formula:
      'Difference = mean over common artefacts of the difference of the print means; interval ' +
      'from t with Satterthwaite’s degrees of freedom, shared out over the comparisons after ' +
      'Šidák. Better or worse: the interval leaves out 0. Indistinguishable: it lies inside ± ' +
      'the smallest difference of interest.',
    tables: [
      { ...printsTable(index, pair.contenderCells), title: 'Prints of the contender' },
      { ...printsTable(index, pair.referenceCells), title: 'Prints of the reference' },
    ],
    notes: [],
  };
}

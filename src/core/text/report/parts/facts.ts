import type { ReportContext } from '../context';
import type { FigureFormat } from '../figure';
import type { Block, Cell, Text } from '../model';

type Row = { head: Text; cells: readonly Cell[] };

/** A cell with a figure of the results; hatched, with the reason, where it is not known. */
export function figureCell(
  context: ReportContext,
  address: string,
  format: FigureFormat,
  why = 'not known',
): Cell {
  const figure = context.print(address, format);
  const isKnown = figure && (figure.value !== null || figure.word !== null || figure.low !== null);
  return isKnown ? { text: [{ figure }] } : { unknown: why };
}

/** A figure with the ends of its interval. */
export function withEnds(context: ReportContext, address: string, format: FigureFormat): Cell {
  const cell = figureCell(context, address, format);
  const ends = context.print(address, { ...format, style: 'ends', unit: '' });
  if (!('text' in cell) || ends?.low == null || ends.low === ends.high) return cell;
  return { text: [...cell.text, ' (', { figure: ends }, ')'] };
}

/** One row a contender. */
const byContender = (
  context: ReportContext,
  cells: (contender: string) => readonly Cell[],
): Row[] =>
  context.marks
    .map(({ contender_id }) => ({
      head: [{ contender: contender_id }],
      cells: cells(contender_id),
    }))
    .filter((row) => row.cells.some((cell) => 'text' in cell));

/** A table with one row a contender; nothing where nobody has a figure. */
export function contenderTable(
  context: ReportContext,
  caption: string,
  columns: readonly (readonly [head: string, cell: (contender: string) => Cell])[],
): Block[] {
  const rows = byContender(context, (contender) => columns.map(([, cell]) => cell(contender)));
  return rows.length === 0
    ? []
    : [{ kind: 'table', caption, heads: columns.map(([head]) => [head]), rows }];
}

/** The chart of a criterion, where it has one. */
export const chartBlock = (context: ReportContext, criterion: string): Block[] => {
  const chart = context.charts.get(criterion);
  return chart ? [{ kind: 'chart', chart: chart.id }] : [];
};

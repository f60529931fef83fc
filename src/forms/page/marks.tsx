import type { Cell, Chart, ChartRow, Inline, ReportModel, Text, Tie } from '../../core/text/report';
import { VERDICT_SIGNS, verdictInWords } from '../../core/text/phrasing';
import { nameIn } from '../text';

type Contenders = Pick<ReportModel, 'contenders'>;

const classes = (...names: readonly (string | false)[]): string =>
  names.filter((name) => name !== false).join(' ');

/** A contender’s badge: hollow for stock, solid for tuned; the reference carries a flag. */
export function Badge({ model, id }: { model: Contenders; id: string }) {
  const mark = model.contenders.find((one) => one.contender_id === id);
  if (!mark) return null;
  return (
    <span
      className={classes(
        'badge',
        `hue-${mark.hue}`,
        mark.isTuned && 'tuned',
        mark.isReference && 'reference',
      )}
      aria-hidden="true"
    >
      {mark.letter}
    </span>
  );
}

/** A contender with its badge and name. */
export function ContenderName({ model, id }: { model: Contenders; id: string }) {
  const mark = model.contenders.find((one) => one.contender_id === id);
  if (!mark) return <>{id}</>;
  return (
    <span className="contender">
      <Badge model={model} id={id} />
      <span>
        {mark.machineName} <small>{mark.variant}</small>
      </span>
    </span>
  );
}

/** A line with its figures: each says where it stands in the results. */
export function Line({ model, text }: { model: Contenders; text: Text }) {
  return (
    <>
      {text.map((piece, at) => (
        <Piece key={at} model={model} piece={piece} />
      ))}
    </>
  );
}

function Piece({ model, piece }: { model: Contenders; piece: Inline }) {
  if (typeof piece === 'string') return <>{piece}</>;
  if ('strong' in piece) return <b>{piece.strong}</b>;
  if ('contender' in piece) return <>{nameIn(model, piece.contender)}</>;
  return (
    <data value={piece.figure.address} className="figure">
      {piece.figure.printed}
    </data>
  );
}

/** Whether a cell is a number, which stands at the right of its column. */
export const isNumber = (cell: Cell): boolean =>
  'text' in cell &&
  cell.text.some(
    (piece) => typeof piece === 'object' && 'figure' in piece && piece.figure.style !== 'word',
  ) &&
  !cell.text.some(
    (piece) => typeof piece === 'object' && 'figure' in piece && piece.figure.style === 'word',
  );

/** A cell; hatched, with the reason, where nothing is known. */
export function CellOf({ model, cell }: { model: Contenders; cell: Cell }) {
  if ('unknown' in cell) {
    return (
      <td className="unknown">
        <span>{cell.unknown}</span>
      </td>
    );
  }
  return (
    <td className={isNumber(cell) ? 'number' : undefined}>
      <Line model={model} text={cell.text} />
    </td>
  );
}

/** A figure that a sentence rests on. */
export function TieChip({ model, citation }: { model: Contenders; citation: Tie }) {
  return (
    <span className={citation.isDecided ? 'citation decided' : 'citation'}>
      <Line model={model} text={citation.text} />
    </span>
  );
}

/** A verdict as its sign, with its words for who does not see it. */
export function Sign({
  row,
}: {
  row: Pick<ChartRow, 'verdict' | 'prints_needed' | 'prints_as_seen'>;
}) {
  const { verdict } = row;
  if (verdict === null) return null;
  const words = verdictInWords({ ...row, verdict });
  return (
    <span className="sign" title={words}>
      <span aria-hidden="true">{VERDICT_SIGNS[verdict][0]}</span>
      <span className="unseen">{words}</span>
    </span>
  );
}

interface StripProps {
  chart: Pick<Chart, 'scale' | 'band'>;
  row: ChartRow;
  hue: number;
  isTuned: boolean;
  height: number;
}

/** A row on the scale of its chart: a dot each, a tick at the figure, its interval, the band that does not matter. */
export function Strip({ chart, row, hue, isTuned, height }: StripProps) {
  const [from, to] = chart.scale;
  const percent = (at: number) =>
    2 + (96 * (Math.min(to, Math.max(from, at)) - from)) / (to - from || 1);
  const x = (at: number) => `${percent(at).toFixed(2)}%`;
  const middle = height / 2;
  const { figure } = row;
  return (
    <svg className={`strip hue-${hue}`} width="100%" height={height} aria-hidden="true">
      {chart.band && (
        <rect
          className="band"
          x={x(chart.band[0])}
          width={`${Math.max(0, percent(chart.band[1]) - percent(chart.band[0])).toFixed(2)}%`}
          height={height}
        />
      )}
      {height > 20 &&
        row.dots.map((value, at) => (
          <circle
            key={at}
            className={isTuned ? 'dot solid' : 'dot'}
            cx={x(value)}
            cy={middle + ((at % 3) - 1) * 4}
            r={2.6}
          />
        ))}
      {figure?.low != null && figure.high !== null && (
        <line className="mark" x1={x(figure.low)} x2={x(figure.high)} y1={middle} y2={middle} />
      )}
      {figure?.value != null && (
        <line
          className="mark"
          x1={x(figure.value)}
          x2={x(figure.value)}
          y1={Math.max(1, middle - 8)}
          y2={Math.min(height - 1, middle + 8)}
        />
      )}
    </svg>
  );
}

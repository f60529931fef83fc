import type { PairRow } from '../../core/compare';
import type { AccuracySummary, FairnessSummary } from '../../core/sections';
import type { ContenderMark } from '../../core/study';
import { FairnessMark } from '../fairness/FairnessMark';
import { fixed } from '../lib/format';
import { ContenderName } from '../marks/ContenderName';
import { DotStrip, scaleFor, StripAxis } from '../marks/DotStrip';
import { Unknown } from '../marks/Unknown';
import { VerdictChip } from '../marks/VerdictChip';

interface AccuracyStripsProps {
  marks: readonly ContenderMark[];
  accuracy: Record<string, AccuracySummary>;
  pairs: readonly PairRow[];
  studyId: string;
  fairness: readonly FairnessSummary[];
  reference: string | null;
  delta: number | null;
  codes: Readonly<Record<string, string>>;
}

/** Every contender's mean absolute deviation on one scale, with its class and verdict. */
export function AccuracyStrips(props: AccuracyStripsProps) {
  const { marks, accuracy, pairs, studyId, fairness, reference, delta, codes } = props;
  const shown = marks.flatMap((mark) => {
    const own = accuracy[mark.contender_id];
    return own ? [{ mark, own }] : [];
  });
  const scale = scaleFor(
    shown.flatMap(({ own }) => [
      ...own.by_specimen.map((specimen) => specimen.mae_mm),
      own.mae_mm.low ?? 0,
      own.mae_mm.high ?? 0,
    ]),
    0,
  );
  const centre = reference === null ? null : (accuracy[reference]?.mae_mm.estimate ?? null);
  const band =
    centre !== null && delta !== null ? ([centre - delta, centre + delta] as const) : null;
  return (
    <div className="overflow-x-auto sheet">
      <table className="w-full min-w-[720px]">
        <thead className="sr-only">
          <tr>
            <th>contender</th>
            <th>specimens</th>
            <th>MAE in mm</th>
            <th>tolerance class</th>
            <th>verdict</th>
          </tr>
        </thead>
        <tbody>
          {shown.map(({ mark, own }) => (
            <tr key={mark.contender_id}>
              <th scope="row" className="w-[168px] py-0 pl-3 text-left font-normal">
                <ContenderName mark={mark} isReference={mark.contender_id === reference} />
              </th>
              <td className="p-0">
                <DotStrip
                  hue={mark.hue}
                  isTuned={mark.isTuned}
                  scale={scale}
                  interval={own.mae_mm}
                  band={band}
                  dots={own.by_specimen.map((specimen) => ({
                    value: specimen.mae_mm,
                    label: `${codes[specimen.specimen_id] ?? specimen.specimen_id}: ${specimen.mae_mm.toFixed(3)} mm`,
                  }))}
                  label={`${mark.label}: ${own.by_specimen.length} specimens, mean ${own.mae_mm.estimate?.toFixed(3) ?? 'not known'} mm`}
                />
              </td>
              <td className="w-[124px] px-3 whitespace-nowrap">
                <MaeFigure id={mark.contender_id} own={own} />
              </td>
              <td className="w-[52px] px-2">
                {own.it_grade === null ? (
                  <Unknown why={own.notes.join('; ')} />
                ) : (
                  <button
                    type="button"
                    className="figure"
                    data-figure={`tolerance/${mark.contender_id}`}
                  >
                    {own.it_grade}
                  </button>
                )}
              </td>
              <td className="w-[290px] px-2">
                {mark.contender_id === reference ? (
                  <span className="text-ink-2">reference</span>
                ) : (
                  <span className="inline-flex flex-wrap items-center">
                    <VerdictChip
                      row={pairs.find((row) => row.contender === mark.contender_id)}
                      name={`${mark.letter}${mark.isTuned ? ' tuned' : ''}`}
                      unit="mm"
                      figure={`pair/${mark.contender_id}`}
                    />
                    <FairnessMark
                      studyId={studyId}
                      contender={mark.contender_id}
                      fairness={fairness}
                    />
                  </span>
                )}
              </td>
            </tr>
          ))}
          <tr>
            <td />
            <td className="p-0">
              <StripAxis scale={scale} digits={2} />
            </td>
            <td colSpan={3} className="px-3 text-xs text-ink-2">
              MAE mm · class · against the reference
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  );
}

function MaeFigure({ id, own }: { id: string; own: AccuracySummary }) {
  const { estimate, low, high, notes } = own.mae_mm;
  if (estimate === null) return <Unknown why={notes?.join('; ') ?? 'not known'} />;
  return (
    <button type="button" className="figure" data-figure={`accuracy/${id}`}>
      {fixed(estimate, 3)}{' '}
      {low !== null && high !== null ? (
        <span className="text-ink-2">±{fixed((high - low) / 2, 3)}</span>
      ) : (
        <span className="text-ink-2" title={notes?.join('; ')}>
          no interval
        </span>
      )}
    </button>
  );
}

import { addressOf } from '../../core/answers/figure-address/address';
import {
  printsToTellApart,
  type Reliability,
  type ReliabilitySets,
} from '../../core/measures/reliability';
import type { ContenderMark } from '../../core/model/study';
import { fixed, percent, ends } from '../lib/format';
import { DotStrip, scaleFor } from '../marks/DotStrip';
import { StripTable } from '../marks/StripTable';
import { Unknown } from '../marks/Unknown';

interface IncidentStripsProps {
  marks: readonly ContenderMark[];
  reliability: Record<string, ReliabilitySets>;
  reference: string | null;
}

/** Incidents for every 100 hours with their exact interval, stand-still, hands, and what is needed. */
export function IncidentStrips({ marks, reliability, reference }: IncidentStripsProps) {
  const shown = marks.flatMap((mark) => {
    const sets = reliability[mark.contender_id];
    return sets ? [{ mark, ...sets }] : [];
  });
  const scale = scaleFor(
    shown.flatMap(({ without_operator: own }) => [
      own.per_100_h.estimate ?? 0,
      Math.min(own.per_100_h.high ?? 0, 4 * Math.max(10, own.per_100_h.estimate ?? 0)),
    ]),
    0,
  );
  const other = reference === null ? null : reliability[reference]?.all.success.estimate;
  return (
    <section className="mt-3 sheet" aria-labelledby="incident-rates">
      <header className="border-b border-line px-3 py-2">
        <h2 id="incident-rates" className="font-semibold">
          Incidents per 100 h (operator errors excluded)
        </h2>
        <p className="text-xs text-ink-2">
          The interval is exact. Downtime and hands-on time count all incidents. The last column
          says how many prints would show a difference at the success rates so far.
        </p>
      </header>
      <StripTable
        heads={HEADS}
        reference={reference}
        scale={scale}
        digits={0}
        legend={{ dot: null, hasBand: false }}
        rows={shown.map(({ mark, all, without_operator: own }) => {
          const share = all.success.estimate;
          const needed =
            mark.contender_id === reference || share === null || other == null
              ? null
              : printsToTellApart([share, other], 0.05);
          return {
            mark,
            strip: (
              <DotStrip
                hue={mark.hue}
                isTuned={mark.isTuned}
                scale={scale}
                interval={own.per_100_h}
                dots={[]}
                label={`${mark.label}: ${own.per_100_h.estimate?.toFixed(1) ?? 'not known'} incidents per 100 h`}
              />
            ),
            cells: (
              <RateCells own={own} mark={mark} all={all} reference={reference} needed={needed} />
            ),
          };
        })}
      />
    </section>
  );
}

interface RateCellsProps {
  own: Reliability;
  mark: ContenderMark;
  all: Reliability;
  reference: IncidentStripsProps['reference'];
  needed: number | null;
}

/** The rates of one contender. */
function RateCells({ own, mark, all, reference, needed }: RateCellsProps) {
  return (
    <>
      <td className="px-2 text-right whitespace-nowrap">
        {own.per_100_h.estimate === null ? (
          <Unknown why={own.notes.join('; ') || 'no incidents were recorded'} />
        ) : (
          <button
            type="button"
            className="figure"
            data-figure={addressOf('reliability', mark.contender_id, 'without_operator.per_100_h')}
          >
            {fixed(own.per_100_h.estimate, 1)}{' '}
            <span className="text-ink-2">{ends(own.per_100_h, (value) => fixed(value, 1))}</span>
          </button>
        )}
      </td>
      <td className="px-2 text-right font-mono whitespace-nowrap">
        {own.incidents ?? <Unknown why="no incidents were recorded" />} in {fixed(own.hours, 1)} h
      </td>
      <td className="px-2 text-right font-mono">
        {all.downtime_share === null ? <Unknown why="not known" /> : percent(all.downtime_share, 1)}
      </td>
      <td className="px-2 text-right font-mono">
        {all.hands_min_per_100_h === null ? (
          <Unknown why="not known" />
        ) : (
          fixed(all.hands_min_per_100_h, 0)
        )}
      </td>
      <td className="px-2 text-right font-mono">{fixed(all.metres, 0)}</td>
      <td className="px-2 text-xs">
        {mark.contender_id === reference
          ? 'reference'
          : needed === null
            ? 'nothing apart so far'
            : `${needed} prints each`}
      </td>
    </>
  );
}

const HEADS = [
  { text: 'incidents per 100 h', term: 'incidents' },
  { text: 'rate', isFigure: true },
  { text: 'incidents in', isFigure: true },
  { text: 'downtime', isFigure: true },
  { text: 'hands-on time (min/100 h)', isFigure: true },
  { text: 'metres', isFigure: true },
  { text: 'to show a difference', term: 'prints-needed' },
];

import { printsToTellApart, type ReliabilitySets } from '../../core/reliability';
import type { ContenderMark } from '../../core/study';
import { fixed, percent } from '../lib/format';
import { ContenderName } from '../marks/ContenderName';
import { DotStrip, scaleFor, StripAxis } from '../marks/DotStrip';
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
          Incidents per 100 h, without the operator’s own
        </h2>
        <p className="text-xs text-ink-2">
          exact interval; stand-still and hands over all incidents; what tells it from the reference
          at the shares of successes seen so far
        </p>
      </header>
      <div className="overflow-x-auto">
        <table className="w-full min-w-[760px]">
          <thead>
            <tr className="border-b border-line">
              <th className="th pl-3">contender</th>
              <th className="th">incidents per 100 h</th>
              <th className="th text-right">rate</th>
              <th className="th text-right">incidents in</th>
              <th className="th text-right">stood still</th>
              <th className="th text-right">hands · min/100 h</th>
              <th className="th text-right">metres</th>
              <th className="th">to tell it from the reference</th>
            </tr>
          </thead>
          <tbody>
            {shown.map(({ mark, all, without_operator: own }) => {
              const share = all.success.estimate;
              const needed =
                mark.contender_id === reference || share === null || other == null
                  ? null
                  : printsToTellApart([share, other], 0.05);
              return (
                <tr key={mark.contender_id} className="border-b border-line-soft">
                  <th scope="row" className="w-[168px] pl-3 text-left font-normal">
                    <ContenderName mark={mark} isReference={mark.contender_id === reference} />
                  </th>
                  <td className="min-w-[180px] p-0">
                    <DotStrip
                      hue={mark.hue}
                      isTuned={mark.isTuned}
                      scale={scale}
                      interval={{
                        ...own.per_100_h,
                        high: Math.min(own.per_100_h.high ?? 0, scale.high),
                      }}
                      dots={[]}
                      label={`${mark.label}: ${own.per_100_h.estimate?.toFixed(1) ?? 'not known'} incidents per 100 h`}
                    />
                  </td>
                  <td className="px-2 text-right whitespace-nowrap">
                    {own.per_100_h.estimate === null ? (
                      <Unknown why={own.notes.join('; ') || 'no incidents were kept'} />
                    ) : (
                      <button
                        type="button"
                        className="figure"
                        data-figure={`incidents/${mark.contender_id}`}
                      >
                        {fixed(own.per_100_h.estimate, 1)}{' '}
                        <span className="text-ink-2">
                          {fixed(own.per_100_h.low ?? 0, 1)} … {fixed(own.per_100_h.high ?? 0, 1)}
                        </span>
                      </button>
                    )}
                  </td>
                  <td className="px-2 text-right font-mono whitespace-nowrap">
                    {own.incidents ?? '?'} in {fixed(own.hours, 1)} h
                  </td>
                  <td className="px-2 text-right font-mono">
                    {all.downtime_share === null ? (
                      <Unknown why="not known" />
                    ) : (
                      percent(all.downtime_share, 1)
                    )}
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
                </tr>
              );
            })}
            <tr>
              <td />
              <td className="p-0">
                <StripAxis scale={scale} digits={0} />
              </td>
              <td colSpan={6} />
            </tr>
          </tbody>
        </table>
      </div>
    </section>
  );
}

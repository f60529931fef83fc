import type { Stored } from '../../../contract/rows';
import type { ContenderMark } from '../../../core/model/study';
import { inWords } from '../../../core/model/study/labels';
import { counted, duration, shortTime } from '../../lib/format';
import { Badge } from '../../marks/Badge';
import { UnknownCell } from '../../marks/Unknown';
import { Leaving } from '../../kit/Leaving';

interface IncidentListProps {
  incidents: readonly Stored<'incidents'>[];
  markOfMachine: (machine: string) => ContenderMark | undefined;
  onOpen: (incident: Stored<'incidents'>) => void;
}

/** What went wrong, the latest first, and what it is booked on. */
export function IncidentList({ incidents, markOfMachine, onOpen }: IncidentListProps) {
  const ordered = [...incidents].sort((a, b) => ((a.at ?? '') < (b.at ?? '') ? 1 : -1));
  const others = incidents.filter((row) => row.cause !== 'operator').length;
  return (
    <section className="min-w-0 sheet" aria-labelledby="incidents">
      <header className="flex items-baseline justify-between border-b border-line px-3 py-2">
        <h2 id="incidents" className="font-semibold">
          Incidents
        </h2>
        <span className="text-xs text-ink-2">
          {incidents.length === 0
            ? 'no incidents'
            : `${counted(incidents.length, 'incident')}, ${others} not caused by the operator`}
        </span>
      </header>
      {incidents.length === 0 && (
        <p className="px-3 py-3 text-ink-2">
          No incidents yet. Record one from a running print, with the key of its box.
        </p>
      )}
      {incidents.length > 0 && (
        <Leaving>
          <div
            className="max-h-[360px] overflow-auto"
            tabIndex={0}
            aria-label="Incidents, the latest first"
          >
            <table className="w-full">
              <thead className="sticky top-0 bg-sheet">
                <tr className="border-b border-line">
                  <th className="th">when</th>
                  <th className="th">
                    <span className="sr-only">machine</span>
                  </th>
                  <th className="th">what</th>
                  <th className="hidden th sm:table-cell">booked on</th>
                  <th className="th text-right">downtime</th>
                </tr>
              </thead>
              <tbody>
                {ordered.map((row) => {
                  const mark = markOfMachine(row.machine_id);
                  return (
                    <tr key={row.incident_id} className="border-b border-line-soft">
                      <td className="px-2 py-1.5 font-mono text-xs whitespace-nowrap">
                        {row.at === null ? '' : shortTime(row.at).slice(5)}
                      </td>
                      <td>{mark && <Badge mark={{ ...mark, isTuned: false }} />}</td>
                      <td className="px-2 py-1.5">
                        <button
                          type="button"
                          className="text-left hover:underline"
                          onClick={() => onOpen(row)}
                        >
                          <b className="font-medium">{inWords(row.mode)}</b>
                          {row.progress_pct !== null && ` at ${row.progress_pct} %`}
                          {row.note !== null && `: ${row.note}`}
                          <span className="text-ink-2 sm:hidden"> · {row.cause}</span>
                        </button>
                      </td>
                      <td className="hidden px-2 sm:table-cell">
                        <span className="rounded-full border border-line px-2 text-xs">
                          {row.cause}
                        </span>
                      </td>
                      {row.downtime_s === null ? (
                        <UnknownCell />
                      ) : (
                        <td className="px-2 text-right font-mono text-xs">
                          {duration(row.downtime_s)}
                        </td>
                      )}
                    </tr>
                  );
                })}
              </tbody>
            </table>
          </div>
        </Leaving>
      )}
    </section>
  );
}

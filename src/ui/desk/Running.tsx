import type { RunningPrint } from '../../contract/desk';
import { ledgerOf } from '../../core/model/ledger';
import { localIso } from '../lib/entry';
import { useNow } from '../lib/use-now';
import { Badge } from '../marks/Badge';
import { PrintClock } from '../stations/runs/PrintClock';

/** The prints that are running in any study, each with its clock. */
export function Running({ running }: { running: readonly RunningPrint[] }) {
  const now = useNow();
  if (running.length === 0) {
    return <p className="px-3 py-3 text-ink-2">No machine is printing.</p>;
  }
  return (
    <ul>
      {running.map(({ study_id, title, mark, artefact, print, events, link }) => {
        const until = link ? link.at : now === null ? null : localIso(new Date(now));
        const ledger =
          print.started_at !== null && until !== null
            ? ledgerOf(print.started_at, events, until)
            : null;
        return (
          <li
            key={`${study_id} ${print.print_id}`}
            className="flex items-start gap-3 border-b border-line-soft px-3 py-2 last:border-b-0"
          >
            {mark && <Badge mark={mark} />}
            <div className="min-w-0 flex-1">
              <a href={`/studies/${study_id}/runs`} className="no-underline hover:underline">
                <b>{artefact}</b>, repeat {print.repeat}
              </a>{' '}
              <span className="text-ink-2">
                · {mark?.label ?? print.contender_id} · {title}
              </span>
              <PrintClock
                print={print}
                ledger={ledger}
                progress={link?.progress ?? null}
                until={until}
              />
            </div>
          </li>
        );
      })}
    </ul>
  );
}

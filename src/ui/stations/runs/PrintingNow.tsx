import type { ContenderMark } from '../../../core/study';
import type { VersionedRow } from '../../../data';
import { duration } from '../../lib/format';
import { useNow } from '../../lib/use-now';
import { Badge } from '../../marks/Badge';

interface PrintingNowProps {
  openPrints: readonly VersionedRow[];
  markOf: (contender: string) => ContenderMark | undefined;
  nameOf: (artefact: string) => string;
  onIncident: (print: VersionedRow) => void;
  onEnd: (print: VersionedRow) => void;
}

/** The prints that are running, each with its clock and what the file said it would take. */
export function PrintingNow({ openPrints, markOf, nameOf, onIncident, onEnd }: PrintingNowProps) {
  const now = useNow();
  return (
    <section className="sheet" aria-labelledby="printing-now">
      <header className="flex items-baseline justify-between border-b border-line px-3 py-2">
        <h2 id="printing-now" className="font-semibold">
          Printing now
        </h2>
        <span className="text-xs text-ink-2">{openPrints.length} at once</span>
      </header>
      {openPrints.length === 0 && (
        <p className="px-3 py-3 text-ink-2">Nothing is printing. A dashed place starts a print.</p>
      )}
      <ul>
        {openPrints.map((print, at) => {
          const mark = markOf(String(print.contender_id));
          const started = Date.parse(String(print.started_at));
          const since = now === null ? 0 : Math.max(0, (now - started) / 1000);
          const estimate = print.estimate_s === null ? null : Number(print.estimate_s);
          const share = estimate === null ? 0 : Math.min(1, since / estimate);
          return (
            <li
              key={String(print.print_id)}
              className="flex flex-wrap items-center gap-3 border-b border-line-soft px-3 py-2"
            >
              {mark && <Badge mark={mark} />}
              <div className="min-w-0 flex-1 basis-48">
                <p>
                  <b>{nameOf(String(print.artefact_id))}</b> · repeat {print.repeat}{' '}
                  <span className="font-mono text-xs text-ink-2">{print.print_id}</span>
                </p>
                <svg className="my-1 block w-full" height={8} aria-hidden="true">
                  <rect width="100%" height={8} fill="var(--band)" />
                  <rect width={`${(100 * share).toFixed(1)}%`} height={8} fill="var(--plum)" />
                </svg>
                <p className="font-mono text-xs text-ink-2">
                  {duration(since)} since the start
                  {estimate !== null &&
                    (since < estimate
                      ? `, ${duration(estimate - since)} left by the estimate`
                      : `, ${duration(since - estimate)} over the estimate`)}
                </p>
              </div>
              <button type="button" className="action" onClick={() => onIncident(print)}>
                Incident <kbd className="key">{at + 1}</kbd>
              </button>
              <button type="button" className="action" onClick={() => onEnd(print)}>
                End
              </button>
            </li>
          );
        })}
      </ul>
    </section>
  );
}

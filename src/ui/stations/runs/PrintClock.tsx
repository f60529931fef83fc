import type { Ledger } from '../../../core/model/ledger';
import type { Stored } from '../../../contract/rows';
import { duration, percent } from '../../lib/format';
import { localIso } from '../../lib/entry';

interface PrintClockProps {
  print: Pick<Stored<'open_prints'>, 'estimate_s'>;
  ledger: Ledger | null;
  progress: number | null;
  /** The time that the ledger runs to. */
  until: string | null;
}

/** How far a print is, where its time went, and when it should be done. */
export function PrintClock({ print, ledger, progress, until }: PrintClockProps) {
  const estimate = print.estimate_s;
  const spent = ledger?.print_s ?? 0;
  const share = progress ?? (estimate === null ? 0 : Math.min(1, spent / estimate));
  const left =
    estimate === null ? null : progress === null ? estimate - spent : estimate * (1 - progress);
  const parts = ledger
    ? [
        ledger.heat_s > 0 && `heating ${duration(ledger.heat_s)}`,
        `printing ${duration(ledger.print_s)}`,
        ledger.paused_s > 0 && `paused ${duration(ledger.paused_s)}`,
        ledger.stalled_s > 0 && `downtime ${duration(ledger.stalled_s)}`,
      ].filter(Boolean)
    : [];
  return (
    <>
      <svg className="my-1 block w-full" height={8} aria-hidden="true">
        <rect width="100%" height={8} fill="var(--band)" />
        <rect width={`${(100 * share).toFixed(1)}%`} height={8} fill="var(--plum)" />
      </svg>
      <p className="font-mono text-xs text-ink-2">
        {parts.join(' · ')}
        {progress !== null && ` · ${percent(progress)}`}
        {left !== null &&
          ledger !== null &&
          (left >= 0
            ? ` · ${duration(left)} left by the estimate${endAt(until, left)}`
            : ` · ${duration(-left)} over the estimate`)}
      </p>
    </>
  );
}

/** When a print should be done, by the clock of this browser. */
function endAt(until: string | null, left: number): string {
  if (until === null) return '';
  const end = localIso(new Date(Date.parse(until) + 1000 * left));
  return `, done about ${end.slice(11, 16)}`;
}

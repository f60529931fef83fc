import { asEvents, ledgerOf } from '../../../core/ledger';
import type { VersionedRow } from '../../../data';
import type { Values } from '../../records/use-record';

/** The times of a print that ends now, as its events tell them. */
export function timesAtEnd(
  print: VersionedRow,
  events: readonly VersionedRow[],
  endedAt: string,
): Values {
  if (typeof print.started_at !== 'string') return {};
  const own = events.filter((event) => event.print_id === print.print_id);
  const ledger = ledgerOf(print.started_at, asEvents(own), endedAt);
  return {
    print_s: Math.max(1, Math.round(ledger.print_s)),
    paused_s: Math.round(ledger.paused_s + ledger.stalled_s),
    ...(ledger.isHeatKnown && { heat_s: Math.round(ledger.heat_s) }),
  };
}

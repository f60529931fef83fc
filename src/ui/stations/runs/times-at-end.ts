import { ledgerOf } from '../../../core/model/ledger';
import type { Stored } from '../../../contract/rows';
import type { Values } from '../../records/use-record';
import type { AnyPrint } from './runs-model';

/** The times of a print that ends now, as its events tell them. */
export function timesAtEnd(
  print: AnyPrint,
  events: readonly Stored<'print_events'>[],
  endedAt: string,
): Values {
  if (print.started_at === null) return {};
  const own = events.filter((event) => event.print_id === print.print_id);
  const ledger = ledgerOf(print.started_at, own, endedAt);
  return {
    print_s: Math.max(1, Math.round(ledger.print_s)),
    paused_s: Math.round(ledger.paused_s + ledger.stalled_s),
    ...(ledger.isHeatKnown && { heat_s: Math.round(ledger.heat_s) }),
  };
}

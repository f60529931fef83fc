import { instant, type Print } from '../../model/study';

/**
 * Hours that a print took: `(heat_s + print_s)/3600`, or where the printing time is not known the
 * time between its ends less its pauses; null where neither is known.
 */
export function printHours(print: Print): number | null {
  if (print.print_s !== null) return ((print.heat_s ?? 0) + print.print_s) / 3600;
  if (print.started_at === null || print.ended_at === null) return null;
  const seconds = (instant(print.ended_at) - instant(print.started_at)) / 1000;
  return (seconds - (print.paused_s ?? 0)) / 3600;
}

import { printHours } from '../reliability';
import { sumOf } from '../../statistics/stats';
import { instant, type Print, type Row } from '../../model/study';

/** What was printed since a part was fitted or looked after, until the same was done again. */
export interface Wear {
  change: Row<'machine_changes'>;
  /** Hours printed, of prints whose start and hours are known. */
  hours: number;
  prints: number;
  /** When the same was done again; null where it has not been, and the hours go on. */
  until: string | null;
}

/** What wears: a part, and what maintenance is owed to. */
const WEARS: ReadonlySet<string> = new Set(['part', 'maintenance']);

/**
 * What each change of a part and each maintenance has worked for, the newest first; null where nothing
 * wears. The same is done again where kind and words are the same, whatever their case.
 */
export function wearOf(
  changes: readonly Row<'machine_changes'>[],
  prints: readonly Print[],
): { change: Row<'machine_changes'>; wear: Wear | null }[] {
  const ordered = [...changes].sort((a, b) => instant(b.at) - instant(a.at));
  const started = prints.flatMap((print) =>
    print.started_at === null ? [] : [{ print, at: instant(print.started_at) }],
  );
  /** When the same was done, of what is newer than the row at hand. */
  const again = new Map<string, string>();
  return ordered.map((change) => {
    if (!WEARS.has(change.kind)) return { change, wear: null };
    const same = `${change.kind} ${change.what.trim().toLowerCase()}`;
    const until = again.get(same) ?? null;
    again.set(same, change.at);
    const end = until === null ? Infinity : instant(until);
    const own = started.filter(({ at }) => at >= instant(change.at) && at < end);
    const hours = sumOf(own, ({ print }) => printHours(print) ?? 0);
    return { change, wear: { change, hours, prints: own.length, until } };
  });
}

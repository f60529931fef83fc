import { FIGURE_GROUPS, type FigureGroup } from '../../../core/answers/figure-names';
import type { GlanceRow } from '../../../core/answers/glance';

export interface GlanceGroup {
  group: FigureGroup;
  rows: readonly GlanceRow[];
}

/**
 * The rows by their group, without those that are left out, each group in the order that its rows were
 * moved to (`order` holds keys; a row that it does not name comes after those that it names).
 */
export function groupedRows(
  rows: readonly GlanceRow[],
  left: ReadonlySet<string>,
  order: readonly string[],
): GlanceGroup[] {
  const place = (key: string) => {
    const at = order.indexOf(key);
    return at < 0 ? order.length : at;
  };
  return FIGURE_GROUPS.map((group) => ({
    group,
    rows: rows
      .filter((row) => row.words.group === group && !left.has(row.key))
      .sort((a, b) => place(a.key) - place(b.key)),
  })).filter((one) => one.rows.length > 0);
}

/** Every row that is seen: a folded group shows its first. */
export const firstOfGroups = (
  groups: readonly GlanceGroup[],
  folded: ReadonlySet<string>,
): GlanceRow[] =>
  groups.flatMap((one) => (folded.has(one.group) ? one.rows.slice(0, 1) : one.rows));

/** The keys of all rows after one was moved within its group; null where it cannot go that far. */
export function movedWithin(
  groups: readonly GlanceGroup[],
  key: string,
  by: number,
): string[] | null {
  const own = groups.find((one) => one.rows.some((row) => row.key === key));
  if (!own) return null;
  const keys = own.rows.map((row) => row.key);
  const from = keys.indexOf(key);
  const to = from + by;
  if (to < 0 || to >= keys.length) return null;
  keys.splice(to, 0, ...keys.splice(from, 1));
  return groups.flatMap((one) => (one === own ? keys : one.rows.map((row) => row.key)));
}

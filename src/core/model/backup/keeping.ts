/** A backup that lies in the folder. */
export interface KeptFile {
  name: string;
  /** When it was made, ms since 1970. */
  at: number;
}

const DAYS_KEPT = 7;
const WEEKS_KEPT = 4;
const DAY_MS = 86_400_000;

/** The day of a moment in UTC, counted from 1970. */
const dayOf = ({ at }: KeptFile): number => Math.floor(at / DAY_MS);
/** The week of a moment: they begin on Mondays, and 1970 began on a Thursday. */
const weekOf = (file: KeptFile): number => Math.floor((dayOf(file) + 3) / 7);

/** The latest of each group, of so many groups, the latest group first. */
function latestOf(files: readonly KeptFile[], groupOf: (file: KeptFile) => number, most: number) {
  const latest = new Map<number, KeptFile>();
  for (const file of files) {
    const known = latest.get(groupOf(file));
    if (!known || known.at < file.at) latest.set(groupOf(file), file);
  }
  return [...latest]
    .sort(([a], [b]) => b - a)
    .slice(0, most)
    .map(([, file]) => file);
}

/**
 * Backups that need not be kept any longer: kept are the last of each of the last seven days that have one, and
 * the last of each of the last four weeks that have one. Days are counted where there are backups, so that nothing
 * is lost of a computer that was off for a month.
 */
export function leftOver(files: readonly KeptFile[]): KeptFile[] {
  const kept = new Set([
    ...latestOf(files, dayOf, DAYS_KEPT),
    ...latestOf(files, weekOf, WEEKS_KEPT),
  ]);
  return files.filter((file) => !kept.has(file));
}

/** Whether a disk with so many bytes free has room for a backup of a database: for twice its bytes. */
export const hasRoom = (freeBytes: number, databaseBytes: number): boolean =>
  freeBytes >= 2 * databaseBytes;

const UNITS: Readonly<Record<string, number>> = { m: 60_000, h: 3_600_000, d: DAY_MS };
const SHORTEST_MS = 10 * 60_000;
const LONGEST_MS = 31 * DAY_MS;

/** How often backups are made, ms, from words like `24h`, `30m`, `2d`. @returns null where it makes no sense */
export function dueEvery(text: string): number | null {
  const [, count, unit = ''] = /^\s*(\d{1,5})\s*([mhd])\s*$/.exec(text) ?? [];
  const ms = Number(count) * (UNITS[unit] ?? Number.NaN);
  return ms >= SHORTEST_MS && ms <= LONGEST_MS ? ms : null;
}

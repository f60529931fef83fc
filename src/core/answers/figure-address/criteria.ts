import { addressOf, parseAddress } from './address';

/** Where a criterion stands in the results: its section, its path there, and whose it is. */
export type Place = readonly [section: string, path: string, of: 'contender' | 'machine'];

export const PLACES: Readonly<Record<string, Place>> = {
  accuracy_mm: ['accuracy', 'mae_mm', 'contender'],
  worst_mm: ['accuracy', 'max_abs_mm', 'contender'],
  surface: ['surface', 'index', 'contender'],
  time_index: ['speed', 'time_index', 'contender'],
  success: ['reliability', 'without_operator.success', 'contender'],
  incidents_per_100_h: ['reliability', 'without_operator.per_100_h', 'contender'],
  standstill: ['reliability', 'all.downtime_share', 'contender'],
  hands_min_per_100_h: ['reliability', 'all.hands_min_per_100_h', 'contender'],
  waste_share: ['waste', 'share', 'contender'],
  noise_db: ['noise', 'printing.at_1m_db', 'machine'],
  setup_min: ['setup', 'minutes', 'machine'],
};

/** Criteria that name a thing: what stands before the name, and where the section has it. */
export const NAMED: readonly (readonly [
  prefix: string,
  section: string,
  ending: string,
  Place[2],
])[] = [
  ['limit:', 'ladders', '.limit', 'contender'],
  ['photo:', 'photo', '.figure', 'contender'],
  ['trial:', 'trials', '.share', 'machine'],
  ['mark:', 'marks', '.value', 'machine'],
];

/**
 * The address of what a scorecard weighs as a criterion: where a section says it, else the
 * criterion's own.
 *
 * @param machine the contender's; null where it is not known
 */
export function addressOfCriterion(key: string, contender: string, machine: string | null): string {
  const place = PLACES[key];
  const named = NAMED.find(([prefix]) => key.startsWith(prefix));
  const of = place?.[2] ?? named?.[3];
  const who = of === 'machine' ? machine : contender;
  if (who !== null && place) return addressOf(place[0], who, place[1]);
  if (who === null || !named) return addressOf('criteria', contender, key);
  const [prefix, section, ending] = named;
  return addressOf(section, who, key.slice(prefix.length) + ending);
}

/** The criteria that `pairs` calls otherwise. */
export const OF_PAIRS: Readonly<Record<string, string>> = {
  accuracy_mm: 'accuracy_mm',
  surface: 'surface',
  time_index: 'ln_print_s',
};

/** The address of a contender's difference to the reference in a figure that has a test. */
export const addressOfDifference = (key: string, contender: string): string =>
  OF_PAIRS[key] === undefined
    ? addressOf('differences', contender, key)
    : addressOf('pairs', contender, OF_PAIRS[key]);

/** Sections whose figures a report prints; of the others it shows what it makes of them itself. */
const REPORTED = new Set(['accuracy', 'pairs', 'surface', 'speed', 'reliability', 'cost']);
/** What a report has no words for: errors by kind and by size. */
const NOT_PRINTED = /^by_(?:kind|size)\./;

/** Whether a figure that a page shows can be picked for a report. */
export function isReportable(address: string): boolean {
  const parsed = parseAddress(address);
  return parsed !== null && REPORTED.has(parsed.section) && !NOT_PRINTED.test(parsed.key);
}

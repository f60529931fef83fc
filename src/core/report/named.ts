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
  if (who !== null && place) return `${place[0]}:${who}:${place[1]}`;
  if (who === null || !named) return `criteria:${contender}:${key}`;
  const [prefix, section, ending] = named;
  return `${section}:${who}:${key.slice(prefix.length)}${ending}`;
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
    ? `differences:${contender}:${key}`
    : `pairs:${contender}:${OF_PAIRS[key]}`;

/**
 * The address of a figure on a page of results, which the page knows by `kind/contender/part`; null
 * where a report has no such figure.
 */
export function addressOnPage(figure: string): string | null {
  const [kind = '', contender = '', ...rest] = figure.split('/');
  const part = rest.join('/');
  if (contender === '') return null;
  switch (kind) {
    case 'accuracy':
      return addressOfCriterion('accuracy_mm', contender, '');
    case 'tolerance':
      return `accuracy:${contender}:tolerance.inside`;
    case 'fit':
      return part === '' ? null : `accuracy:${contender}:fit.${part}.scale`;
    case 'group':
      return ['x', 'y', 'z', 'none'].includes(part)
        ? `accuracy:${contender}:by_axis.${part}.mae_mm`
        : null;
    case 'pair':
      return addressOfDifference('accuracy_mm', contender);
    case 'finish':
      return addressOfDifference('surface', contender);
    case 'time':
      return addressOfDifference('time_index', contender);
    case 'surface':
      return addressOfCriterion('surface', contender, '');
    case 'speed':
      return part === ''
        ? addressOfCriterion('time_index', contender, '')
        : `speed:${contender}:by_artefact.${part}.median_print_s`;
    case 'reliability':
      return addressOfCriterion('success', contender, '');
    case 'incidents':
      return addressOfCriterion('incidents_per_100_h', contender, '');
    case 'cost':
      return part === '' ? null : `cost:${contender}:${part}.per_good_part`;
    default:
      return null;
  }
}

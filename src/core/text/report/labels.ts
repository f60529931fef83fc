import { columnLabel, inWords, type StudyIndex } from '../../model/study';
import type { FigureNames, FigureWords } from '../../answers/figure-names';
import { inUnit, PER_CENT, WORD, type FigureFormat } from './figure';
import { namedFigure, parseAddress } from '../../answers/figure-address';

/** What a study calls the things that addresses name. */
export interface Naming {
  index: StudyIndex;
  names: FigureNames;
  nameOf: (contender: string) => string;
  machineName: (machine: string) => string;
  wordsOf: (criterion: string) => FigureWords;
}

/** What stands where there is no address. */
const NOWHERE = { section: '', who: '', key: '' };

/** What the figure at an address is, in words: `Auklet 19 tuned: mean deviation`. */
export function labelOf(naming: Naming, address: string): string {
  const { section, who, key } = parseAddress(address) ?? NOWHERE;
  if (section === 'scorecard' && who === 'doubt') {
    const what = key === 'weights' ? 'the weights' : naming.wordsOf(key).label;
    return `How far it depends on ${what}`;
  }
  return `${whoIs(naming, who)}: ${whatIs(naming, section, key, address).label}`;
}

/** Whom an address is about: a contender, a machine, an instrument, or whatever its section is listed by. */
export function whoIs({ index, names, nameOf, machineName }: Naming, who: string): string {
  if (index.contenders.has(who)) return nameOf(who);
  const machine = who.replace(/^machine-/, '');
  if (index.machines.has(machine)) return machineName(machine);
  return index.instruments.get(who)?.name ?? names.panels[who] ?? inWords(who.replaceAll('_', ' '));
}

interface Named {
  label: string;
  format: FigureFormat;
}

/** What an address says of whom it is about, and how that is written. */
export function whatIs(naming: Naming, section: string, key: string, address: string): Named {
  const named = namedFigure(address);
  if (named) {
    const words = naming.wordsOf(named.criterion);
    const tail = named.isDifference ? ', against the reference' : '';
    return {
      label: `${words.label}${tail}`,
      format: inUnit(words.unit, words.digits, words.factor),
    };
  }
  if (section === 'fairness') {
    return { label: `fairness on ${artefactIn(naming, key)}`, format: WORD };
  }
  const known = KNOWN[`${section}:${key}`];
  if (known) return { label: known[0], format: known[1] };
  for (const [pattern, label, format] of OF_ARTEFACTS) {
    const found = pattern.exec(`${section}:${key}`);
    if (found) return { label: `${label} ${artefactIn(naming, found[1] ?? '')}`, format };
  }
  const judged = section === 'panels' ? JUDGED.exec(key) : null;
  if (judged) {
    const [said, format] = IN_PANELS[judged[2] ?? ''] ?? ['', plain];
    return { label: `${naming.nameOf(judged[1] ?? '')} ${said}`, format };
  }
  return unnamed(naming, section, key);
}

const artefactIn = ({ names }: Naming, id: string): string => names.artefacts[id] ?? id;

const plain = inUnit('', 0);

/** Figures that reports print beside those that a scorecard knows. */
const KNOWN: Readonly<Record<string, readonly [string, FigureFormat]>> = {
  'accuracy:readings': ['readings', plain],
  'accuracy:bias_mm': ['bias', inUnit('mm', 3, 1, 'signed')],
  'accuracy:it_grade': ['tolerance grade', WORD],
  'accuracy:repeatability_mm': ['repeats within', inUnit('mm', 3)],
  'accuracy:tolerance.inside': ['dimensions inside their limits', plain],
  'surface:specimens': ['parts inspected', plain],
  'surface:coverage': ['share of zones looked at', PER_CENT],
  'speed:prints': ['prints with a known time', plain],
  'speed:estimate_ratio': ['actual over estimated time', inUnit('', 2)],
  'reliability:all.good': ['good prints', plain],
  'reliability:all.prints': ['prints', plain],
  'waste:filament_g': ['filament', inUnit('g', 0)],
  'waste:energy_wh': ['energy', inUnit('Wh', 0)],
  'reach:claim.claimed': ['claimed speed', inUnit('mm/s', 0)],
  'reach:commanded_max': ['speed asked for, at most', inUnit('mm/s', 0)],
  'reach:reached_max': ['speed reached, at most', inUnit('mm/s', 0)],
  'reach:reached.p50': ['speed that half the time stays below', inUnit('mm/s', 0)],
  'reach:claim.share_within_5pct': ['share of the time near the claim', inUnit('%', 1, 100)],
  'scorecard:score': ['score', inUnit('', 1, 1, 'ends')],
  'scorecard:first_place_share': ['comes first in', inUnit('% of simulations', 0, 100)],
  'instruments:readings': ['readings taken', plain],
  'instruments:repeatability_mm': ['repeats within', inUnit('mm', 3)],
  'panels:correct': ['right answers', plain],
  'panels:correct_share': ['share of right answers', PER_CENT],
  'panels:p': ['p against guessing', inUnit('', 3)],
  'setup:steps': ['steps of set-up', plain],
  'setup:snags': ['snags of set-up', plain],
};

/** Figures of a contender within a panel. */
const JUDGED = /^abilities\.(.+)\.(wins|losses|log_ability|log_ability_by_judge)$/;
const IN_PANELS: Readonly<Record<string, readonly [string, FigureFormat]>> = {
  wins: ['preferred', plain],
  losses: ['not preferred', plain],
  log_ability: ['preference over the reference, logarithm of the odds', inUnit('', 2)],
  log_ability_by_judge: [
    'preference over the reference, logarithm of the odds, by judge',
    inUnit('', 2),
  ],
};

/** Figures that are listed by artefact within a contender. */
const OF_ARTEFACTS: readonly (readonly [RegExp, string, FigureFormat])[] = [
  [/^speed:by_artefact\.(.+)\.median_print_s$/, 'printing time of', inUnit('min', 1, 1 / 60)],
  [/^speed:by_artefact\.(.+)\.ratio_to_reference$/, 'time × reference of', inUnit('', 2)],
  [/^cost:(.+)\.per_good_part$/, 'cost of a good', inUnit('', 2)],
];

/** Whatever has no words of its own: the last part of its path, as a column is called. */
function unnamed({ names }: Naming, section: string, key: string): Named {
  if (section === 'scorecard' && key === 'turning_price') {
    return { label: 'stays first up to', format: inUnit(names.currency, 0) };
  }
  const fit = /^fit\.(\w+)\.(?:advice\.)?(\w+)$/.exec(key);
  const axis = fit
    ? `, ${fit[1] === 'none' ? 'round features' : (fit[1] ?? '').toUpperCase()}`
    : '';
  const parts = fit ? [] : key.split('.').slice(0, -1);
  const column = fit?.[2] ?? key.split('.').at(-1) ?? key;
  if (column === 'scale_to_enter')
    return { label: `scale to enter${axis}`, format: inUnit('%', 2, 100) };
  const { label, unit } = columnLabel(column);
  const whole = `${[...parts, label].join(' ')}${axis}`.replaceAll('_', ' ');
  return { label: whole, format: inUnit(unit ?? '', 3) };
}

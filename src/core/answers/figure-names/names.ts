import { inWords, type Study } from '../../model/study';

/** Where a figure stands in the results. */
export const FIGURE_GROUPS = [
  'Accuracy',
  'Surface',
  'Limits',
  'Speed',
  'Reliability',
  'Cost',
  'Handling',
] as const;
export type FigureGroup = (typeof FIGURE_GROUPS)[number];

/** A figure as people write it. */
export interface FigureWords {
  group: FigureGroup;
  /** What it is: `mean deviation`. */
  label: string;
  /** Unit after the number; empty where it has none. */
  unit: string;
  /** What the number is times, before it is written: 100 for shares in per cent. */
  factor: number;
  digits: number;
  /** Whether more is better; null where that is a matter of taste. */
  isLargerBetter: boolean | null;
}

/** What a study calls the things that a figure's key names. */
export interface FigureNames {
  artefacts: Readonly<Record<string, string>>;
  /** By `artefact/ladder`: its name, unit, digits, and whether its harder steps have larger values. */
  ladders: Readonly<
    Record<string, { name: string; unit: string; isUpward: boolean; digits: number }>
  >;
  /** By panel: the aspect that is asked after. */
  panels: Readonly<Record<string, string>>;
  currency: string;
}

const plain = (
  group: FigureGroup,
  label: string,
  unit: string,
  digits: number,
  isLargerBetter: boolean | null,
  factor = 1,
): FigureWords => ({ group, label, unit, factor, digits, isLargerBetter });

const share = (group: FigureGroup, label: string, isLargerBetter: boolean): FigureWords =>
  plain(group, label, '%', 1, isLargerBetter, 100);

const PLAIN: Readonly<Record<string, FigureWords>> = {
  accuracy_mm: plain('Accuracy', 'mean deviation', 'mm', 3, false),
  worst_mm: plain('Accuracy', 'largest deviation', 'mm', 3, false),
  surface: plain('Surface', 'surface index', '', 1, true),
  aftercare_min: plain('Surface', 'post-processing per part', 'min', 1, false),
  time_index: plain('Speed', 'print time relative to the reference', '×', 2, false),
  success: { ...share('Reliability', 'success rate (operator errors excluded)', true), digits: 0 },
  incidents_per_100_h: plain('Reliability', 'incidents in 100 h', '', 1, false),
  standstill: share('Reliability', 'downtime', false),
  hands_min_per_100_h: plain('Reliability', 'hands-on time in 100 h', 'min', 0, false),
  cost_index: plain('Cost', 'cost of a good part relative to the reference', '×', 2, false),
  waste_share: share('Cost', 'waste', false),
  noise_db: plain('Handling', 'noise at 1 m', 'dB(A)', 1, false),
  setup_min: plain('Handling', 'set-up', 'min', 0, false),
  build_l: plain('Handling', 'build volume', 'l', 1, true),
};

const PHOTO: Readonly<Record<string, FigureWords>> = {
  ringing: plain('Surface', 'ringing', '%', 1, false, 100),
  'layer-lines': plain('Surface', 'banding', '%', 2, false, 100),
  strings: plain('Surface', 'strings, covered', '%', 2, false, 100),
  gaps: plain('Surface', 'gaps, area', '%', 2, false, 100),
  texture: plain('Surface', 'texture', '%', 2, false, 100),
};

const LIGHT: Readonly<Record<string, string>> = {
  flat: 'even light',
  'raking-left': 'light from the left',
  'raking-right': 'light from the right',
  'raking-top': 'light from above',
  back: 'light from behind',
};

/** How a photo is lit, in words. */
export const lightInWords = (light: string): string => LIGHT[light] ?? inWords(light);

/** A figure by its key as a scorecard has it, in the words of a study. */
export function figureWords(key: string, names: FigureNames): FigureWords {
  const known = PLAIN[key];
  if (known) return known;
  if (key === 'price_equipped') return plain('Cost', 'price as equipped', names.currency, 0, false);
  if (key === 'price') return plain('Cost', 'price', names.currency, 0, false);
  const at = key.indexOf(':');
  const [kind, rest] = [key.slice(0, at), key.slice(at + 1)];
  const [artefact = '', second = '', third = ''] = rest.split('/');
  const part = names.artefacts[artefact] ?? artefact;
  if (kind === 'limit') {
    const ladder = names.ladders[rest];
    const isUpward = ladder?.isUpward ?? null;
    const label = `${ladder?.name ?? second}, ${part}`;
    return plain('Limits', label, ladder?.unit ?? '', ladder?.digits ?? 2, isUpward);
  }
  if (kind === 'works') {
    const check = rest.slice(artefact.length + 1);
    return { ...share('Limits', `${check}, ${part}`, true), digits: 0 };
  }
  if (kind === 'photo') {
    const words = PHOTO[second] ?? plain('Surface', inWords(second), '', 4, false);
    // Ringing along x is another thing than along y: the label names the feature.
    const feature = rest.split('/').slice(3).join('/');
    const of = feature === '' ? '' : ` along ${feature}`;
    return { ...words, label: `${words.label}${of}, ${part}, ${lightInWords(third)}` };
  }
  if (kind === 'panel') {
    return plain('Surface', `panel: ${names.panels[rest] ?? rest}`, '', 2, true);
  }
  if (kind === 'trial')
    return { ...share('Handling', `${inWords(rest)} as promised`, true), digits: 0 };
  return plain('Handling', `${inWords(rest)}, mark 0–10`, '', 1, true);
}

/** A value of a figure as it is written: `0.021 mm`, `93 %`, `1.14 ×`. */
export function figureText(
  { unit, factor, digits }: Pick<FigureWords, 'unit' | 'factor' | 'digits'>,
  value: number,
): string {
  const number = (factor * value).toFixed(digits);
  return unit === '' ? number : `${number} ${unit}`;
}

type NamedTables = Pick<Study['tables'], 'artefacts' | 'ladders' | 'ladder_steps' | 'panels'>;

/** What a study calls the things that a figure's key names, from its tables. */
export function namesOf(tables: NamedTables, currency: string): FigureNames {
  const { artefacts, ladders, ladder_steps, panels } = tables;
  return {
    artefacts: Object.fromEntries(artefacts.map((row) => [row.artefact_id, row.name])),
    ladders: Object.fromEntries(
      ladders.map(({ artefact_id, ladder_id, name, unit }) => {
        const steps = ladder_steps
          .filter((row) => row.artefact_id === artefact_id && row.ladder_id === ladder_id)
          .sort((a, b) => a.step - b.step);
        const isUpward = (steps.at(-1)?.value ?? 0) > (steps[0]?.value ?? 0);
        const decimals = steps.map(({ value }) => (String(value).split('.')[1] ?? '').length);
        const digits = Math.min(3, Math.max(0, ...decimals));
        return [`${artefact_id}/${ladder_id}`, { name, unit, isUpward, digits }];
      }),
    ),
    panels: Object.fromEntries(panels.map((row) => [row.panel_id, row.aspect])),
    currency,
  };
}

export const figureNamesOf = ({ tables, meta }: Study): FigureNames =>
  namesOf(tables, meta.cost?.currency ?? '');

import { smallestDifference, type StudyMeta } from '../../model/study';
import type { PairRow, Verdict } from '../../statistics/compare';
import { foundOn, worstFound, type FairnessResult, type FoundOnArtefact } from '../fairness';
import type { CriterionEvidence, EvidenceOfCriteria } from '../scorecard';
import {
  FIGURE_GROUPS,
  figureText,
  figureWords,
  type FigureNames,
  type FigureWords,
} from '../figure-names';

/** What a contender's figure is, on one scale with everyone's. */
export interface GlanceCell {
  contender: string;
  /** The figure as it is written; null where it is not known. */
  text: string | null;
  /** Where it stands on the row's scale; null without a number. */
  value: number | null;
  low: number | null;
  high: number | null;
  /** Against the reference; null where there is no test of it, or for the reference itself. */
  verdict: Verdict | null;
  /** Prints each with which an open verdict would be settled. */
  prints_needed: number | null;
  prints_as_seen: number | null;
  /** How fair the comparison is on what the figure rests on; null where nothing is compared. */
  fairness: FairnessResult | null;
}

/** One figure of everyone. */
export interface GlanceRow {
  key: string;
  words: FigureWords;
  cells: GlanceCell[];
  /** What would not matter about the reference; null where that is not stated. */
  band: readonly [number, number] | null;
  /** The ends of the row's scale. */
  scale: readonly [number, number];
}

export interface GlanceInput {
  contenders: readonly string[];
  reference: string | null;
  criteria: EvidenceOfCriteria;
  differences: Readonly<Record<string, readonly PairRow[]>>;
  /** What the fairness check found; none where it is not shown. */
  fairness?: readonly FoundOnArtefact[];
  /** Tolerance class of each contender, where there is one. */
  classes: Readonly<Record<string, string | null>>;
  smallest: StudyMeta['smallest_difference'];
  names: FigureNames;
}

/** The row of tolerance classes, which are words on a scale of their own. */
const CLASS_KEY = 'it_grade';
const CLASS_WORDS: FigureWords = {
  group: 'Accuracy',
  label: 'tolerance grade',
  unit: '',
  factor: 1,
  digits: 0,
  isLargerBetter: false,
};
/** In a group, what stands first. */
const ORDER = ['accuracy_mm', 'surface', 'time_index', 'success', 'cost_index', 'price'];

/** Every figure that has evidence, group by group, everyone on one scale. */
export function glanceRows(input: GlanceInput): GlanceRow[] {
  const { contenders, reference, criteria, differences, names } = input;
  const rows = Object.entries(criteria).map(([key, evidence]): GlanceRow => {
    const words = figureWords(key, names);
    const verdicts = new Map((differences[key] ?? []).map((row) => [row.contender, row]));
    const cells = contenders.map((contender): GlanceCell => {
      const own = evidence[contender];
      const row = contender === reference ? undefined : verdicts.get(contender);
      return {
        contender,
        text: own ? textOf(words, own) : null,
        value: own?.value ?? null,
        low: own?.low ?? null,
        high: own?.high ?? null,
        verdict: row?.verdict ?? (contender === reference ? null : judgedAs(key, own)),
        prints_needed: row?.prints_needed ?? null,
        prints_as_seen: row?.prints_as_seen ?? null,
        fairness: row
          ? (worstFound(foundOn(input.fairness ?? [], contender, row.on))?.result ?? null)
          : fairOnPart(input, key, contender),
      };
    });
    const centre = reference === null ? null : (evidence[reference]?.value ?? null);
    const band = bandOf(key, centre, input.smallest);
    return { key, words, cells, band, scale: scaleOf(cells, band) };
  });
  return [...rows, ...classRow(input)].sort(
    (a, b) =>
      FIGURE_GROUPS.indexOf(a.words.group) - FIGURE_GROUPS.indexOf(b.words.group) ||
      placeOf(a.key) - placeOf(b.key) ||
      compareTexts(photographed(a.key), photographed(b.key)) ||
      compareTexts(a.words.label, b.words.label),
  );
}

/** The artefact of a figure on photos; empty for any other figure. Figures of one artefact stay together. */
const photographed = (key: string): string => /^photo:([^/]+)/.exec(key)?.[1] ?? '';

const compareTexts = (a: string, b: string): number => Number(a > b) - Number(a < b);

/** Figures of one artefact that no test compares: limits of ladders, function checks. */
const OF_PART = /^(?:limit|works):([^/]+)\//;

/** How fair it is to compare a contender with the reference in a figure of one artefact. */
function fairOnPart(
  { fairness = [], reference }: GlanceInput,
  key: string,
  contender: string,
): FairnessResult | null {
  const artefact = OF_PART.exec(key)?.[1];
  if (artefact === undefined || contender === reference) return null;
  return worstFound(foundOn(fairness, contender, [artefact]))?.result ?? null;
}

/** What people said of whom they saw beside the reference: no print more would settle it, ballots would. */
function judgedAs(key: string, own: CriterionEvidence | null | undefined): Verdict | null {
  if (!key.startsWith('panel:') || !own) return null;
  if (own.bound === 'above') return 'better';
  if (own.bound === 'below') return 'worse';
  if (own.low === null || own.high === null) return null;
  return own.low > 0 ? 'better' : own.high < 0 ? 'worse' : 'unsettled';
}

const placeOf = (key: string): number => {
  const at = ORDER.indexOf(key);
  return at < 0 ? ORDER.length : at;
};

function textOf(words: FigureWords, { value, bound }: CriterionEvidence): string | null {
  if (bound === 'above') return 'above all';
  if (bound === 'below') return 'below all';
  if (bound === 'fails') return 'not the easiest';
  return value === null ? null : figureText({ ...words, unit: '' }, value);
}

function classRow({ contenders, classes }: GlanceInput): GlanceRow[] {
  const cells = contenders.map((contender): GlanceCell => {
    const text = classes[contender] ?? null;
    const value = text === null ? null : Number(text.replace('IT', ''));
    return {
      contender,
      text,
      value,
      low: null,
      high: null,
      verdict: null,
      prints_needed: null,
      prints_as_seen: null,
      fairness: null,
    };
  });
  return cells.some(({ text }) => text !== null)
    ? [{ key: CLASS_KEY, words: CLASS_WORDS, cells, band: null, scale: scaleOf(cells, null) }]
    : [];
}

/** What lies within the smallest difference of interest about the reference. */
function bandOf(
  key: string,
  centre: number | null,
  smallest: GlanceInput['smallest'],
): readonly [number, number] | null {
  if (centre === null) return null;
  const delta = smallestDifference(smallest, key);
  if (delta === null) return null;
  // Of time the difference is one of logarithms: the band is a ratio to each side.
  if (key === 'time_index') return [centre * Math.exp(-delta), centre * Math.exp(delta)];
  return [centre - delta, centre + delta];
}

/** The ends that hold all values; an interval that is many times as wide is cut, its values are not. */
function scaleOf(
  cells: readonly GlanceCell[],
  band: readonly [number, number] | null,
): readonly [number, number] {
  const values = cells.flatMap(({ value }) => value ?? []);
  const ends = cells.flatMap(({ low, high }) => [low ?? [], high ?? []].flat());
  const [least, most] = [
    Math.min(...values, ...(band ?? [])),
    Math.max(...values, ...(band ?? [])),
  ];
  if (values.length === 0) return [0, 1];
  const span = most - least || Math.abs(most) * 0.1 || 1;
  const from = Math.max(Math.min(least, ...ends), least - 1.5 * span);
  const to = Math.min(Math.max(most, ...ends), most + 1.5 * span);
  // Where all are the same and nothing is said of how sure, they stand in the middle.
  return from < to ? [from, to] : [from - span, to + span];
}

/** Contenders in the order of a figure, the better first; those without it last, in their order. */
export function orderedBy(row: GlanceRow): string[] {
  const sign = row.words.isLargerBetter === true ? -1 : 1;
  const known = row.cells.filter(({ value }) => value !== null);
  const rest = row.cells.filter(({ value }) => value === null);
  const sorted = [...known].sort((a, b) => sign * ((a.value ?? 0) - (b.value ?? 0)));
  return [...sorted, ...rest].map(({ contender }) => contender);
}

import { figureAt, type FoundFigure, type ReportedResults } from '../../answers/results';

/**
 * How a figure is written: its value; its size without a sign; what a difference of logarithms is in
 * per cent; its ends; its word.
 */
export type FigureStyle = 'value' | 'signed' | 'size' | 'ratio' | 'ends' | 'word';

export interface FigureFormat {
  style: FigureStyle;
  /** What the number is times, before it is written. */
  factor: number;
  digits: number;
  unit: string;
}

/** A figure as it is printed, with where it stands in the results. */
export interface PrintedFigure extends FoundFigure, FigureFormat {
  address: string;
  /** What it is, in words. */
  label: string;
  printed: string;
}

/** A figure of numbers in its own unit. */
export const inUnit = (
  unit: string,
  digits: number,
  factor = 1,
  style: FigureStyle = 'value',
): FigureFormat => ({ style, factor, digits, unit });

export const COUNT = inUnit('', 0);
export const PER_CENT = inUnit('%', 0, 100);
export const WORD: FigureFormat = { style: 'word', factor: 1, digits: 0, unit: '' };

/** What stands where nothing is known. */
const UNKNOWN = 'not known';

/** Writes what was found; a word where there is no number. */
export function writeFigure(found: FoundFigure, format: FigureFormat): string {
  const { style, factor, digits, unit } = format;
  const fixed = (value: number) => plainZero((factor * value).toFixed(digits));
  const withUnit = (text: string) => (unit === '' ? text : `${text} ${unit}`);
  const { value, low, high, word } = found;
  if (style === 'word') return word === null ? UNKNOWN : word.replaceAll('_', ' ');
  if (style === 'ends') {
    if (low === null || high === null) return UNKNOWN;
    const [from, to] = [fixed(low), fixed(high)];
    return withUnit(from === to ? from : `${from} … ${to}`);
  }
  if (value === null) return word === null ? UNKNOWN : word.replaceAll('_', ' ');
  if (style === 'size') return withUnit(fixed(Math.abs(value)));
  if (style === 'ratio') {
    const change = 100 * Math.expm1(value);
    return `${Math.abs(change).toFixed(digits)} % ${change < 0 ? 'less' : 'more'}`;
  }
  const text = fixed(value);
  return withUnit(style === 'signed' && Number(text) > 0 ? `+${text}` : text);
}

/** `-0.00` is nothing else than `0.00`. */
const plainZero = (text: string): string => (Number(text) === 0 ? text.replace('-', '') : text);

/** So many digits of a number are stated: any other digit is another number. */
export const STATED_DIGITS = 10;
/** Below this a number is none: what is left of zero after arithmetic. */
export const NOTHING = 1e-12;

/** A number as it is stated. */
const stated = (value: number | null): number | null =>
  value === null ? null : Math.abs(value) < NOTHING ? 0 : Number(value.toPrecision(STATED_DIGITS));

/** A figure with its numbers in as many digits as are stated. */
export const statedFigure = (figure: PrintedFigure): PrintedFigure => ({
  ...figure,
  value: stated(figure.value),
  low: stated(figure.low),
  high: stated(figure.high),
});

/** Prints a figure of the results; null where there is none at that address. */
export function printFigure(
  results: ReportedResults,
  address: string,
  format: FigureFormat,
  label: string,
): PrintedFigure | null {
  const found = figureAt(results, address);
  return found && { address, label, ...found, ...format, printed: writeFigure(found, format) };
}

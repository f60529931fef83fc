/** What somebody typed, as a number; or what is wrong with it, with the numbers that it could be. */
export type TypedNumber = { value: number | null } | { fault: string; choices?: readonly number[] };

export interface TypedNumberOptions {
  /**
   * Whether `1.099` and `1,099` are asked about: they can be a little over one or over a thousand. Where they are
   * not, as in lengths from a caliper, a single sign is a decimal sign.
   */
  asks?: boolean;
}

const GROUPS = /[\s'’\u00a0\u2009\u202f]/;
const SHAPE = /^[-+]?(?:[\d.,\s'’\u00a0\u2009\u202f]*\d[\d.,\s'’\u00a0\u2009\u202f]*)$/;

/** Digits in groups of three after the first, or without groups: `1 099`, `12.345.678`, `1099`. */
function ungrouped(text: string, sign: string | RegExp): string | null {
  const [first = '', ...others] = text.split(sign);
  const isGrouped = /^\d{1,3}$/.test(first) && others.every((group) => /^\d{3}$/.test(group));
  return others.length === 0
    ? /^\d*$/.test(first)
      ? first
      : null
    : isGrouped
      ? first + others.join('')
      : null;
}

/** How often a sign stands in a text. */
const timesIn = (text: string, sign: string): number => text.split(sign).length - 1;

/** The whole and decimal part of a number without its sign; null where it is none. */
function partsOf(text: string): { whole: string; decimals: string; isSingle: boolean } | null {
  const [points, commas] = [timesIn(text, '.'), timesIn(text, ',')];
  // Of both signs the last one is the decimal sign, whatever the language.
  const decimal =
    points > 0 && commas > 0
      ? text.lastIndexOf('.') > text.lastIndexOf(',')
        ? '.'
        : ','
      : points + commas === 1
        ? points === 1
          ? '.'
          : ','
        : null;
  if (decimal !== null && timesIn(text, decimal) > 1) return null;
  const [left = '', decimals = ''] = decimal === null ? [text] : text.split(decimal);
  const grouping = points + commas === 0 || decimal === null || points * commas > 0;
  const sign = GROUPS.test(left)
    ? GROUPS
    : decimal === null
      ? points > 0
        ? '.'
        : ','
      : decimal === '.'
        ? ','
        : '.';
  const whole = grouping || GROUPS.test(left) ? ungrouped(left, sign) : left;
  if (whole === null || !/^\d*$/.test(whole) || !/^\d*$/.test(decimals)) return null;
  if (whole === '' && decimals === '') return null;
  return {
    whole,
    decimals,
    isSingle: decimal !== null && points + commas === 1 && !GROUPS.test(left),
  };
}

/**
 * Reads a number that somebody typed, whatever their language: a point or a comma before the decimals, points,
 * commas, blanks or apostrophes between thousands. Empty is not known.
 *
 * @example readTypedNumber('1.099,00') // { value: 1099 }
 * @example readTypedNumber('1.099', { asks: true }) // { choices: [1.099, 1099] }
 */
export function readTypedNumber(
  typed: string,
  { asks = false }: TypedNumberOptions = {},
): TypedNumber {
  const text = typed.trim().replace('\u2212', '-');
  if (text === '') return { value: null };
  const fault = { fault: `“${typed.trim()}” is not a number` };
  if (!SHAPE.test(text)) return fault;
  const isNegative = text.startsWith('-');
  const parts = partsOf(text.replace(/^[-+]/, ''));
  if (!parts) return fault;
  const { whole, decimals, isSingle } = parts;
  const signed = (digits: string) => (isNegative ? -1 : 1) * Number(digits);
  const value = signed(`${whole || '0'}.${decimals || '0'}`);
  const isUnclear = asks && isSingle && decimals.length === 3 && /^[1-9]\d{0,2}$/.test(whole);
  if (!isUnclear) return { value };
  const large = signed(whole + decimals);
  return {
    fault: `“${typed.trim()}” can be ${value} or ${large}: choose one, or type ${whole}.${decimals}0 or ${large}`,
    choices: [value, large],
  };
}

const ENDINGS: Record<string, string> = { one: 'st', two: 'nd', few: 'rd', other: 'th' };
const rules = new Intl.PluralRules('en', { type: 'ordinal' });

/** A place in a row of so many: `2nd of 9`. */
export const place = ({ place: at, of }: { place: number; of: number }): string =>
  `${ordinal(at)} of ${of}`;

/** A number as a place: `1st`, `22nd`. */
export const ordinal = (at: number): string => `${at}${ENDINGS[rules.select(at)] ?? 'th'}`;

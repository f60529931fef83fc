import type { Interval } from '../core/statistics/stats';

/** A number as it is printed; `not known` for none. */
export const fixed = (value: number | null, digits: number, isSigned = false): string =>
  value === null ? 'not known' : `${isSigned && value > 0 ? '+' : ''}${value.toFixed(digits)}`;

/** The ends of an interval. */
export const ends = (interval: Interval, digits: number): string =>
  interval.low === null
    ? 'not known'
    : `${fixed(interval.low, digits)} … ${fixed(interval.high, digits)}`;

/** Rows under a header, in columns of a terminal. */
export function table(header: readonly string[], rows: readonly (readonly string[])[]): string[] {
  const widths = header.map((name, at) =>
    Math.max(name.length, ...rows.map((row) => (row[at] ?? '').length)),
  );
  const line = (cells: readonly string[]) =>
    `  ${cells.map((cell, at) => cell.padEnd(widths[at] ?? 0)).join('  ')}`.trimEnd();
  return [line(header), ...rows.map(line)];
}

import { clockOf, minutesOf } from '../../core/model/study';
const MINUS = '\u2212';

/** A number with a fixed count of decimals and a true minus sign. */
export function fixed(value: number, digits: number): string {
  const text = Math.abs(value).toFixed(digits);
  return value < 0 && Number(text) !== 0 ? `${MINUS}${text}` : text;
}

/** A number that always shows its sign; zero shows ±. */
export function signed(value: number, digits: number): string {
  const text = Math.abs(value).toFixed(digits);
  if (Number(text) === 0) return `±${text}`;
  return `${value > 0 ? '+' : MINUS}${text}`;
}

/** Seconds as `1:05:09`, or `48:10` under an hour. */
export function duration(seconds: number): string {
  const whole = Math.round(seconds);
  return whole >= 3600 ? clockOf(whole) : minutesOf(whole);
}

/** The ends of an interval, each as `say` says it. */
export const ends = (
  { low, high }: Readonly<{ low: number | null; high: number | null }>,
  say: (value: number) => string,
): string => (low === null || high === null ? 'no interval' : `${say(low)} … ${say(high)}`);

/** A share as per cent, its sign never on a line of its own. */
export const percent = (share: number, digits = 0): string =>
  `${fixed(100 * share, digits)}\u00a0%`;

export { counted } from '../../core/model/study/labels';

/** A date and time as it was written, without its offset and seconds. */
export const shortTime = (iso: string): string => iso.slice(0, 16).replace('T', ' ');

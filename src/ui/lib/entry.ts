import { clockOf, twoDigits } from '../../core/model/study';
import {
  readTypedNumber,
  type TypedNumber,
  type TypedNumberOptions,
} from '../../core/model/study/typed-number';

/** What somebody typed, as a value; or what is wrong with it, with what it could be. */
export type Entry = TypedNumber;

/** Reads a typed number, with a decimal point or comma, with or without signs between thousands. */
export const readNumber = (typed: string, options?: TypedNumberOptions): Entry =>
  readTypedNumber(typed, options);

/** A number as a field shows it: with the decimal sign of the browser's language. */
export const writeNumber = (value: number, sign: DecimalSign): string =>
  sign === ',' ? String(value).replace('.', ',') : String(value);

export type DecimalSign = '.' | ',';

/** The decimal sign of the browser's language. */
export function decimalSign(): DecimalSign {
  const parts = new Intl.NumberFormat(navigator.language).formatToParts(1.5);
  return parts.find(({ type }) => type === 'decimal')?.value === ',' ? ',' : '.';
}

/** Reads a duration in s from `h:mm:ss`, `m:ss`, or a plain number of seconds. */
export function readDuration(typed: string): Entry {
  const text = typed.trim();
  if (text === '') return { value: null };
  if (/^\d+(?:[.,]\d+)?$/.test(text)) return { value: Number(text.replace(',', '.')) };
  const parts = /^(?:(\d+):)?(\d{1,3}):(\d{2})$/.exec(text);
  const hours = Number(parts?.[1] ?? 0);
  const minutes = Number(parts?.[2] ?? NaN);
  const seconds = Number(parts?.[3] ?? NaN);
  if (!parts || seconds > 59 || (parts[1] !== undefined && minutes > 59)) {
    return { fault: `“${text}” is not a time: write h:mm:ss or m:ss` };
  }
  return { value: hours * 3600 + minutes * 60 + seconds };
}

/** Seconds as a form shows them: `h:mm:ss`, whatever their size. */
export const writeDuration = (seconds: number): string => clockOf(seconds);

/** A local date and time of this browser as ISO 8601 with its offset. */
export function localIso(date: Date): string {
  const two = (value: number) => twoDigits(Math.trunc(Math.abs(value)));
  const offset = -date.getTimezoneOffset();
  const local = new Date(date.getTime() + offset * 60_000).toISOString().slice(0, 19);
  return `${local}${offset < 0 ? '-' : '+'}${two(offset / 60)}:${two(offset % 60)}`;
}

/** Puts a time from a form (without offset) together with its offset: the old one where known. */
export function withOffset(local: string, before: string | null): string {
  const full = local.length === 16 ? `${local}:00` : local;
  const kept = before && /(?:Z|[+-]\d{2}(?::?\d{2})?)$/.exec(before)?.[0];
  return kept ? full + kept : localIso(new Date(full));
}

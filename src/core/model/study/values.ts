import * as z from 'zod';
import { isPlainText } from './plain-text';

/**
 * The kinds of value that a cell of a study can hold. Each is a Zod schema of the domain value with
 * `meta({ cell })` saying how it is written in a table, so that one definition serves the package,
 * the database, the API and the forms.
 */
export type CellKind =
  'id' | 'text' | 'number' | 'whole' | 'choice' | 'time' | 'path' | 'currency' | 'sha256';

export const ID_PATTERN = /^[A-Za-z0-9][A-Za-z0-9._-]{0,63}$/;

const TIME_PATTERN =
  /^(\d{4})-(\d{2})-(\d{2})T(\d{2}):(\d{2})(?::(\d{2})(?:[.,]\d+)?)?(?:Z|[+-]\d{2}(?::?\d{2})?)$/;

const CURRENCIES = new Set(Intl.supportedValuesOf('currency'));

/** No length, time, mass, price or level of a study comes near it, and sums of squares of it are finite. */
const LARGEST = 1e9;

/** Gives a schema that is made once, when it is first asked for: a study has hundreds of columns, of few kinds. */
function shared<Schema extends z.ZodType>(make: () => Schema): () => Schema {
  let made: Schema | undefined;
  return () => (made ??= make());
}

const number = (message: string) =>
  z
    .number({ error: message })
    .min(-LARGEST, 'is beyond anything that can be: at least -1e9')
    .max(LARGEST, 'is beyond anything that can be: at most 1e9');

const plain = () =>
  z.string().refine(isPlainText, 'holds a control character: take it out, or write it in words');

/** Identifier of a row: a letter or digit, then up to 63 letters, digits, dots, dashes, underscores. */
export const id = shared(() =>
  z
    .string()
    .regex(
      ID_PATTERN,
      'is not an id: start with a letter or digit, then letters, digits, . _ - (64 at most)',
    )
    .meta({ cell: 'id' }),
);

const UUID_PATTERN = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i;

/** The lasting id of a thing of the workshop, as RFC 9562 writes a UUID. */
export const uid = shared(() =>
  z
    .string()
    .regex(UUID_PATTERN, 'is not a UUID: 8-4-4-4-12 hexadecimal digits')
    .meta({ cell: 'text' }),
);

/** Free text, not empty. */
export const text = shared(() =>
  plain().min(1, 'must not be empty').max(20_000, 'is too long').meta({ cell: 'text' }),
);

/** A name that is part of a key: text of at most 300 characters. */
export const name = shared(() =>
  plain().min(1, 'must not be empty').max(300, 'is too long').meta({ cell: 'text' }),
);

/** Any finite number. */
export const anyNumber = shared(() => number('must be a number').meta({ cell: 'number' }));

/** A number over 0. */
export const positive = shared(() =>
  number('must be a number').positive('must be over 0').meta({ cell: 'number' }),
);

/** A number of at least 0. */
export const nonNegative = shared(() =>
  number('must be a number').nonnegative('must not be below 0').meta({ cell: 'number' }),
);

/** A share in percent, 0 to 100. */
export const percent = shared(() =>
  z
    .number({ error: 'must be a number' })
    .min(0, 'must be from 0 to 100')
    .max(100, 'must be from 0 to 100')
    .meta({ cell: 'number' }),
);

/** Sane ends of what is counted. */
export const MOST_STEPS = 1000;
export const MOST_COPIES = 10_000;
export const MOST_TRIALS = 1_000_000;
export const MOST_REPEATS = 100_000;
export const MOST_PLANNED = 1000;

/**
 * A whole number of at least 1.
 *
 * @param most its sane upper end: where a number makes work, so much of it and no more
 */
export const count = (limit = 1_000_000) =>
  z
    .number({ error: 'must be a whole number' })
    .int('must be a whole number')
    .min(1, 'must be at least 1')
    .max(limit, `must be at most ${limit}`)
    .meta({ cell: 'whole' });

/** Most judges of a panel, and most questions of one. */
export const MOST_JUDGES = 500;
export const MOST_QUESTIONS = 60;

/** A share, 0 to 1. */
export const share = shared(() =>
  number('must be a number from 0 to 1')
    .min(0, 'must be a number from 0 to 1')
    .max(1, 'must be a number from 0 to 1')
    .meta({ cell: 'number' }),
);

/** A defect grade: 0 none, 1 trace, 2 slight, 3 marked, 4 severe. */
export const grade = shared(() =>
  z
    .number({ error: 'must be a whole number' })
    .int('must be a whole grade from 0 to 4')
    .min(0, 'must be a whole grade from 0 to 4')
    .max(4, 'must be a whole grade from 0 to 4')
    .meta({ cell: 'whole' }),
);

/** One word out of a closed list. */
export const choice = <const T extends readonly [string, ...string[]]>(words: T) =>
  z
    .enum(words, { error: () => `must be one of: ${words.join(', ')}` })
    .meta({ cell: 'choice', choices: words });

/** An ISO 8601 date and time with its offset, kept as it was written. */
export const time = shared(() =>
  z
    .string()
    .refine(
      (value) => isIsoTime(value),
      'must be an ISO 8601 time with offset, such as 2026-03-02T09:30:00+01:00',
    )
    .meta({ cell: 'time' }),
);

/** A day of the calendar, or a time of it with its offset. */
export const dayOrTime = shared(() =>
  z
    .string()
    .refine(
      (value) => isIsoTime(value) || isIsoTime(`${value}T00:00Z`),
      'must be an ISO 8601 date or time, such as 2026-03-02',
    )
    .meta({ cell: 'text' }),
);

/** A whole number of at least 0. */
export const wholeFromZero = shared(() =>
  z
    .number({ error: 'must be a whole number' })
    .int('must be a whole number')
    .min(0, 'must not be below 0')
    .max(1_000_000, 'must be at most 1000000')
    .meta({ cell: 'whole' }),
);

/** A turn in degrees, from 0 to under 360. */
export const turn = shared(() =>
  number('must be a number')
    .min(0, 'must be from 0 to under 360')
    .lt(360, 'must be from 0 to under 360')
    .meta({ cell: 'number' }),
);

/** A relative path inside the package, with `/`. */
export const path = shared(() =>
  z
    .string()
    .max(400, 'is too long')
    .refine(
      (value) => isInsidePath(value),
      'must be a relative path inside the package, with / and without ..',
    )
    .meta({ cell: 'path' }),
);

/** An ISO 4217 currency code. */
export const currency = shared(() =>
  z
    .string()
    .refine((value) => CURRENCIES.has(value), 'must be an ISO 4217 currency code, such as EUR')
    .meta({ cell: 'currency' }),
);

/** The letter of a machine's badge: A to Z, then AA, AB … */
export const badgeLetter = shared(() =>
  z
    .string()
    .regex(/^[A-Z]{1,3}$/, 'must be one to three capital letters')
    .meta({ cell: 'text' }),
);

/** A SHA-256 digest in hexadecimal. */
export const sha256 = shared(() =>
  z
    .string()
    .regex(/^[0-9a-fA-F]{64}$/, 'must be a SHA-256 in 64 hexadecimal digits')
    .meta({ cell: 'sha256' }),
);

const nullable = <T extends z.ZodType>(inner: T) => inner.nullable().default(null as never);
const nullables = new WeakMap<z.ZodType, z.ZodType>();

/** A value that may be unknown: null, and null where it is not given. */
export function maybe<T extends z.ZodType>(inner: T): ReturnType<typeof nullable<T>> {
  const made = nullables.get(inner) ?? nullable(inner);
  nullables.set(inner, made);
  return made as ReturnType<typeof nullable<T>>;
}

/** The years in which anything of a study can have happened. */
const FIRST_YEAR = 1900;
const LAST_YEAR = 2199;

/**
 * Whether a text is an ISO 8601 date and time of the calendar, from 1900 to 2199, that states its
 * offset. Leap seconds (`:60`) and `24:00` are not taken.
 */
export function isIsoTime(value: string): boolean {
  const parts = TIME_PATTERN.exec(value);
  if (!parts) return false;
  const numberAt = (place: number): number => Number(parts[place] ?? '0');
  const [year, month, day] = [numberAt(1), numberAt(2), numberAt(3)];
  const [hour, minute, second] = [numberAt(4), numberAt(5), numberAt(6)];
  if (year < FIRST_YEAR || year > LAST_YEAR) return false;
  if (month < 1 || month > 12 || hour > 23 || minute > 59 || second > 59) return false;
  const daysInMonth = new Date(Date.UTC(2000, month, 0)).getUTCDate();
  const isLeap = (year % 4 === 0 && year % 100 !== 0) || year % 400 === 0;
  const lastDay = month === 2 && !isLeap ? 28 : daysInMonth;
  if (day < 1 || day > lastDay) return false;
  const offset = /[+-](\d{2}):?(\d{2})?$/.exec(value.slice(16));
  return !offset || (Number(offset[1]) <= 23 && Number(offset[2] ?? '0') <= 59);
}

/** Milliseconds since 1970 of a time that `isIsoTime` accepts. */
export function instant(value: string): number {
  const full = value
    .replace(',', '.')
    .replace(/([+-]\d{2})$/, '$1:00')
    .replace(/([+-]\d{2})(\d{2})$/, '$1:$2');
  return Date.parse(full);
}

/** Whether a path is relative, uses `/`, and stays inside its folder. */
export function isInsidePath(value: string): boolean {
  if (value === '' || value.startsWith('/') || value.includes('\\') || !isPlainText(value)) {
    return false;
  }
  if (/^[A-Za-z]:/.test(value)) return false;
  return value.split('/').every((part) => part !== '' && part !== '..' && part !== '.');
}

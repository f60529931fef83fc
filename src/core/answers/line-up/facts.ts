import { KINEMATICS, OBTAINED } from '../../model/study/catalogues';
import { inWords } from '../../model/study/labels';
import type { Machine } from '../../model/study';
import { readTypedNumber } from '../../model/study/typed-number';

/** A machine as it stands in a line-up, as far as its facts go. */
export type MachineFacts = Partial<Omit<Machine, 'extras'>>;

/** A change of a machine's row, or what is wrong with what was typed. */
export type Written = { change: MachineFacts } | { fault: string };

/** A fact of a machine as one cell: how it is shown, typed and written. */
export interface MachineFact {
  key: string;
  label: string;
  /** The columns that it stands for. */
  columns: readonly (keyof MachineFacts)[];
  /** Words to choose from; free text otherwise. */
  choices?: readonly string[];
  /** As people read it; null where it is not known. */
  show: (machine: MachineFacts) => string | null;
  /** What was typed, as a change; the empty text makes it unknown. */
  write: (typed: string) => Written;
}

/** A number as it is typed, with or without signs between thousands. */
const NUMBER = String.raw`(\d(?:[\d.,'’\u00a0\u2009\u202f ]*\d)?)`;

/** Numbers that were typed; or what is wrong with the first of them that is none, or could be two. */
function numbersOf(
  texts: readonly (string | undefined)[],
  asks: boolean,
): { values: (number | null)[] } | { fault: string } {
  const values: (number | null)[] = [];
  for (const typed of texts) {
    const read = readTypedNumber(typed ?? '', { asks });
    if ('fault' in read) return { fault: read.fault };
    values.push(read.value);
  }
  return { values };
}

const text = (column: keyof MachineFacts, label: string): MachineFact => ({
  key: column,
  label,
  columns: [column],
  show: (machine) => (machine[column] == null ? null : String(machine[column])),
  write: (typed) => ({ change: { [column]: typed.trim() || null } }),
});

const number = (column: keyof MachineFacts, label: string): MachineFact => ({
  ...text(column, label),
  write: (typed) => {
    const read = readTypedNumber(typed, { asks: !column.endsWith('_mm') });
    return 'fault' in read ? { fault: read.fault } : { change: { [column]: read.value } };
  },
});

const choice = (
  column: 'kinematics' | 'obtained',
  label: string,
  choices: readonly string[],
): MachineFact => ({
  key: column,
  label,
  choices,
  columns: [column],
  show: (machine) => (machine[column] == null ? null : inWords(machine[column])),
  write: (typed) => ({ change: { [column]: typed === '' ? null : typed } as MachineFacts }),
});

const SIZES = new RegExp(
  `^\\s*[⌀øØ]?\\s*${NUMBER}(?:\\s*[×x*]\\s*${NUMBER})?(?:\\s*[×x*]\\s*${NUMBER})?\\s*$`,
);

/** `230 × 230 × 250`; of a round plate `⌀ 300 × 380`. One number is a cube, two are a round plate's. */
const build: MachineFact = {
  key: 'build',
  label: 'build, mm',
  columns: ['build_x_mm', 'build_y_mm', 'build_z_mm'],
  show: ({ build_x_mm: x, build_y_mm: y, build_z_mm: z, kinematics }) => {
    if (x == null && y == null && z == null) return null;
    const say = (size: number | null | undefined) => (size == null ? '?' : String(size));
    if (kinematics === 'delta' && x === y) return `⌀ ${say(x)} × ${say(z)}`;
    return [x, y, z].map(say).join(' × ');
  },
  write: (typed) => {
    if (typed.trim() === '') {
      return { change: { build_x_mm: null, build_y_mm: null, build_z_mm: null } };
    }
    const [, a, b, c] = SIZES.exec(typed) ?? [];
    if (a === undefined) return { fault: 'type it as 230 × 230 × 250' };
    const sizes = c !== undefined ? [a, b, c] : b !== undefined ? [a, a, b] : [a, a, a];
    const read = numbersOf(sizes, false);
    if ('fault' in read) return read;
    const [build_x_mm = null, build_y_mm = null, build_z_mm = null] = read.values;
    return { change: { build_x_mm, build_y_mm, build_z_mm } };
  },
};

const PRICE = new RegExp(`^\\s*${NUMBER}?\\s*(?:\\(\\s*${NUMBER}\\s*\\))?\\s*([A-Za-z]{3})?\\s*$`);

/** `640 (749) EUR`: paid, in brackets the list price where it is another. */
const price: MachineFact = {
  key: 'price',
  label: 'paid (list)',
  columns: ['price_paid', 'price_list', 'currency'],
  show: ({ price_paid, price_list, currency }) => {
    if (price_paid == null && price_list == null) return null;
    const list = price_list == null || price_list === price_paid ? '' : `(${price_list})`;
    return [price_paid, list, currency].filter((part) => part != null && part !== '').join(' ');
  },
  write: (typed) => {
    if (typed.trim() === '') return { change: { price_paid: null, price_list: null } };
    const [, paid, list, currency] = PRICE.exec(typed) ?? [];
    if (paid === undefined && list === undefined) {
      return { fault: 'type it as 640, 640 EUR or 640 (749) EUR' };
    }
    const read = numbersOf([paid, list], true);
    if ('fault' in read) return read;
    const [price_paid = null, price_list = null] = read.values;
    return {
      change: {
        price_paid,
        price_list,
        ...(currency !== undefined && { currency: currency.toUpperCase() }),
      },
    };
  },
};

/** The facts of a machine in the order in which a line-up shows them. */
export const MACHINE_FACTS: readonly MachineFact[] = [
  text('maker', 'maker'),
  choice('kinematics', 'motion', KINEMATICS),
  build,
  number('nozzle_mm', 'nozzle, mm'),
  number('claimed_speed_mm_s', 'claimed speed, mm/s'),
  number('claimed_accel_mm_s2', 'claimed acceleration, mm/s²'),
  number('max_flow_mm3_s', 'hotend gives, mm³/s'),
  price,
  choice('obtained', 'how obtained', OBTAINED),
  text('firmware', 'firmware'),
  text('serial', 'serial number'),
];

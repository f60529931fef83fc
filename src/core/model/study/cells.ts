import type { Column } from './columns';
import { isPlainText } from './plain-text';

const NUMBER = /^-?\d+(?:\.\d+)?(?:[eE][+-]?\d+)?$/;

/** A cell's value, or what is wrong with it. */
export type CellResult = { value: string | number | null } | { fault: string };

/**
 * Turns the text of a cell into the value of its column. An empty cell is null (not known).
 * Numbers have an optional minus, digits, an optional `.digits` and exponent, and nothing else.
 */
export function readCell(column: Column, text: string): CellResult {
  if (text === '') {
    return column.required ? { fault: 'is empty, and must hold a value' } : { value: null };
  }
  if (!isPlainText(text)) {
    return { fault: `${quote(text)} holds a control character: take it out` };
  }
  let value: string | number = text;
  if (column.cell === 'number' || column.cell === 'whole') {
    if (!NUMBER.test(text)) return { fault: notANumber(text) };
    value = Number(text);
    if (!Number.isFinite(value)) return { fault: `${quote(text)} is too large for a number` };
    if (Object.is(value, -0)) value = 0;
  }
  const checked = column.schema.safeParse(value);
  if (checked.success) return { value };
  return { fault: `${quote(text)} ${checked.error.issues[0]?.message ?? 'is not allowed'}` };
}

function notANumber(text: string): string {
  const hint = /^-?\d+,\d+$/.test(text)
    ? `: write it with a decimal point, ${text.replace(',', '.')}`
    : /\s/.test(text)
      ? ': write it without blanks'
      : '';
  return `${quote(text)} is not a number${hint}`;
}

/** A value as a message quotes it: on one line, and not endless. */
export function quote(value: string): string {
  const shown = value.length > 80 ? `${value.slice(0, 79)}…` : value;
  return JSON.stringify(shown);
}

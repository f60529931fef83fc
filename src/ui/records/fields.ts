import { columnLabel, inWords, columnsOf, type TableName } from '../../core/model/study';

/** How a form lets one value be entered. */
export interface FieldSpec {
  name: string;
  label: string;
  unit: string | null;
  kind: 'text' | 'long' | 'number' | 'choice' | 'duration' | 'time';
  required: boolean;
  options?: readonly FieldOption[];
}

export interface FieldOption {
  value: string;
  label: string;
}

const LONG = new Set(['notes', 'note', 'change', 'action']);

/**
 * The fields for some columns of a table. Made on the server: a page's script needs no schemas.
 *
 * @param options choices for columns that name other rows
 */
export function fieldsOf(
  table: TableName,
  names: readonly string[],
  options: Readonly<Record<string, readonly FieldOption[]>> = {},
): FieldSpec[] {
  const columns = new Map(columnsOf(table).map((column) => [column.name, column]));
  return names.map((name) => {
    const column = columns.get(name);
    if (!column) throw new Error(`${table} has no column ${name}`);
    const { label, unit } = columnLabel(name);
    const choices =
      options[name] ?? column.choices?.map((word) => ({ value: word, label: inWords(word) }));
    const base = { name, label, required: column.required };
    if (choices) return { ...base, unit: null, kind: 'choice', options: choices };
    if (unit === 's' || name === 'seconds') return { ...base, unit: 'h:mm:ss', kind: 'duration' };
    if (column.cell === 'number' || column.cell === 'whole') {
      return { ...base, unit, kind: 'number' };
    }
    if (column.cell === 'time') return { ...base, unit: null, kind: 'time' };
    return { ...base, unit, kind: LONG.has(name) ? 'long' : 'text' };
  });
}

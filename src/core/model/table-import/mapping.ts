import { readTypedNumber } from '../study/typed-number';
/** A table from elsewhere: its heads and its cells as they stand there. */
export interface ForeignTable {
  heads: readonly string[];
  rows: readonly (readonly string[])[];
}

/** What a column of a foreign table holds: a role of a reading, or all values of one dimension. */
export type ColumnRole =
  | { is: 'specimen' | 'dimension' | 'value' | 'operator' | 'instrument' | 'nothing' }
  | { is: 'values'; dimension: string };

/** Lengths are converted here, and nowhere else. */
export const FOREIGN_UNITS = { mm: 1, cm: 10, inch: 25.4, µm: 0.001 } as const;

export type ForeignUnit = keyof typeof FOREIGN_UNITS;

/** What the cells of a foreign table can mean in a study. */
export interface ForeignContext {
  specimens: readonly { id: string; code: string | null; artefact: string }[];
  dimensions: readonly { artefact: string; id: string; name: string }[];
  instruments: readonly { id: string; name: string }[];
}

export interface ForeignReading {
  specimen_id: string;
  dimension_id: string;
  value_mm: number;
  operator: string | null;
  instrument_id: string | null;
  /** Row of the table, from 1 below the heads. */
  row: number;
}

export interface ForeignFault {
  row: number;
  column: string;
  message: string;
}

const plain = (text: string): string =>
  text
    .trim()
    .toLowerCase()
    .replace(/[\s_-]+/g, ' ');

const GUESSES: readonly (readonly [RegExp, Exclude<ColumnRole['is'], 'values'>])[] = [
  [/^(specimen|sample|part|code|sticker|serial)( (id|no|number|code))?$/, 'specimen'],
  [/^(dimension|feature|characteristic|what)( (id|name))?$/, 'dimension'],
  [/^(value|reading|measured|measurement|actual|result)( (mm|cm|in|inch))?$/, 'value'],
  [/^(operator|inspector|who|by|initials)$/, 'operator'],
  [/^(instrument|gauge|gage|caliper|tool)$/, 'instrument'],
];

/** What a column probably holds, by its head. */
export function guessRole(head: string, context: ForeignContext): ColumnRole {
  const said = plain(head.replace(/\s*[[(]\s*(mm|cm|in|inch|µm)\s*[\])]$/i, ''));
  const dimension = context.dimensions.find(
    ({ id, name }) => plain(id) === said || plain(name) === said,
  );
  if (dimension) return { is: 'values', dimension: dimension.id };
  return { is: GUESSES.find(([pattern]) => pattern.test(said))?.[1] ?? 'nothing' };
}

/** A length in mm from a cell; null where it is no number. */
function lengthOf(cell: string, unit: ForeignUnit): number | null {
  const text = cell.trim().replace(/\s*(mm|cm|in|inch|µm|")$/i, '');
  const read = readTypedNumber(text);
  if ('fault' in read || read.value === null) return null;
  // A product by 25.4 or 0.001 has digits that nobody read: nanometres are kept.
  return Number((read.value * FOREIGN_UNITS[unit]).toFixed(6));
}

/**
 * Reads a foreign table as readings. Empty cells are no readings; everything else that cannot be
 * read is a fault at its row and column.
 */
export function readForeign(
  table: ForeignTable,
  roles: readonly ColumnRole[],
  unit: ForeignUnit,
  context: ForeignContext,
): { readings: ForeignReading[]; faults: ForeignFault[] } {
  const known = knownIn(context);
  const readings: ForeignReading[] = [];
  const faults: ForeignFault[] = [];
  const columnOf = (is: ColumnRole['is']) => roles.findIndex((role) => role.is === is);
  const whole = missingRoles(roles);
  if (whole) return { readings, faults: [{ row: 0, column: '-', message: whole }] };
  table.rows.forEach((cells, at) => {
    const row = at + 1;
    const cell = (column: number) => (column < 0 ? '' : (cells[column] ?? '').trim());
    if (cells.every((each) => each.trim() === '')) return;
    const fault = (column: number, message: string) =>
      faults.push({ row, column: table.heads[column] ?? '-', message });
    const specimenColumn = columnOf('specimen');
    const specimen = known.specimens.get(plain(cell(specimenColumn)));
    if (!specimen) {
      fault(specimenColumn, `“${cell(specimenColumn)}” is no specimen of this study`);
      return;
    }
    const instrumentColumn = columnOf('instrument');
    const named = plain(cell(instrumentColumn));
    const instrument = known.instruments.get(named);
    if (named !== '' && !instrument) {
      fault(instrumentColumn, `“${cell(instrumentColumn)}” is no instrument of this study`);
      return;
    }
    const add = (column: number, dimensionName: string, valueColumn: number) => {
      const text = cell(column);
      if (text === '') return;
      const dimension = known.dimensions.get(`${specimen.artefact}/${plain(dimensionName)}`);
      if (!dimension) {
        fault(valueColumn, `“${dimensionName}” is no dimension of this specimen’s artefact`);
        return;
      }
      const value_mm = lengthOf(text, unit);
      if (value_mm === null || value_mm < 0) {
        fault(column, `“${text}” is no length`);
        return;
      }
      readings.push({
        specimen_id: specimen.id,
        dimension_id: dimension.id,
        value_mm,
        row,
        operator: cell(columnOf('operator')) || null,
        instrument_id: instrument?.id ?? null,
      });
    };
    roles.forEach((role, column) => {
      if (role.is === 'values') add(column, role.dimension, column);
    });
    const valueColumn = columnOf('value');
    const dimensionColumn = columnOf('dimension');
    if (valueColumn >= 0 && dimensionColumn >= 0) {
      add(valueColumn, cell(dimensionColumn), dimensionColumn);
    }
  });
  return { readings, faults };
}

/** What cells can name, by id and by name as they are compared; of two with one name the first. */
function knownIn({ specimens, dimensions, instruments }: ForeignContext) {
  const byNames = <Item>(items: readonly Item[], namesOf: (item: Item) => (string | null)[]) => {
    const found = new Map<string, Item>();
    for (const item of items) {
      for (const name of namesOf(item)) {
        if (name !== null && !found.has(name)) found.set(name, item);
      }
    }
    return found;
  };
  return {
    specimens: byNames(specimens, ({ id, code }) => [
      plain(id),
      code === null ? null : plain(code),
    ]),
    instruments: byNames(instruments, ({ id, name }) => [plain(id), plain(name)]),
    dimensions: byNames(dimensions, ({ artefact, id, name }) => [
      `${artefact}/${plain(id)}`,
      `${artefact}/${plain(name)}`,
    ]),
  };
}

/** What the roles lack to make readings, in words; null where nothing is missing. */
function missingRoles(roles: readonly ColumnRole[]): string | null {
  const has = (is: ColumnRole['is']) => roles.some((role) => role.is === is);
  if (!has('specimen')) return 'say which column names the specimen';
  if (has('values')) return null;
  return has('value') && has('dimension')
    ? null
    : 'say which columns hold the values of a dimension, or which hold a dimension and its value';
}

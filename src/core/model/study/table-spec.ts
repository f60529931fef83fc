import type * as z from 'zod';

/** How a row names a row of another table. */
export type Reference =
  /** `column` holds the id of a row of `table`. */
  | { scope: 'id'; column: string; table: string }
  /** `columns` name a row of `table` within the artefact that this row stands for. */
  | { scope: 'artefact' | 'specimen'; columns: readonly string[]; table: string }
  /** `columns` are, as they stand, the key of a row of `table`. */
  | { scope: 'key'; columns: readonly string[]; table: string };

export interface TableSpec<Row extends z.ZodObject = z.ZodObject> {
  /** What the rows are, in the plural, as a person says it. */
  title: string;
  row: Row;
  /** The columns that tell two rows apart; none where rows may repeat. */
  key: readonly string[];
  /** Whether a study cannot be without it. */
  required?: boolean;
  references?: readonly Reference[];
}

/** Names a row of another table by its id. */
export const ref = (column: string, table: string): Reference => ({ scope: 'id', column, table });
/** Names a row of the same artefact. */
export const ofArtefact = (table: string, ...columns: string[]): Reference => ({
  scope: 'artefact',
  columns,
  table,
});
/** Names a row of the specimen's artefact. */
export const ofSpecimen = (table: string, ...columns: string[]): Reference => ({
  scope: 'specimen',
  columns,
  table,
});

/** Names a photo that is there. */
export const ofPhoto: Reference = {
  scope: 'key',
  columns: ['specimen_id', 'path'],
  table: 'photos',
};

/** A specification that keeps the type of its row; the row's schema is made when it is first asked for. */
export function spec<Row extends z.ZodObject>({
  row,
  ...table
}: Omit<TableSpec<Row>, 'row'> & { row: () => Row }): TableSpec<Row> {
  let made: Row | undefined;
  return {
    ...table,
    get row() {
      return (made ??= row());
    },
  };
}

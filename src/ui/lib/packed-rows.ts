/** Rows without what repeats: the names of their columns, and columns that hold one value only. */
export interface PackedRows<Item extends object> {
  columns: readonly (string & keyof Item)[];
  cells: readonly (readonly unknown[])[];
  same: Readonly<Partial<Item>>;
}

/** Packs rows that all have the same columns: many columns of a table are unknown in all its rows. */
export function packRows<Item extends object>(rows: readonly Item[]): PackedRows<Item> {
  const [first] = rows;
  if (!first) return { columns: [], cells: [], same: {} as Partial<Item> };
  const names = Object.keys(first) as (string & keyof Item)[];
  const columns = names.filter((name) => rows.some((row) => row[name] !== first[name]));
  const repeated = names.filter((name) => !columns.includes(name));
  return {
    columns,
    cells: rows.map((row) => columns.map((name) => row[name])),
    same: Object.fromEntries(repeated.map((name) => [name, first[name]])) as Partial<Item>,
  };
}

/** The rows that were packed. */
export const unpackRows = <Item extends object>({
  columns,
  cells,
  same,
}: PackedRows<Item>): Item[] =>
  cells.map((values) => {
    const row: Record<string, unknown> = { ...same };
    for (const [at, name] of columns.entries()) row[name] = values[at];
    return row as Item;
  });

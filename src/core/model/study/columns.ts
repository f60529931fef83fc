import * as z from 'zod';
import { tableSpec, type TableName } from './tables';
import type { CellKind } from './values';

/** One column of a table: how its cells are written and what they may hold. */
export interface Column {
  name: string;
  cell: CellKind;
  /** Whether a cell must hold a value. */
  required: boolean;
  /** The closed list of words, where there is one. */
  choices?: readonly string[];
  /** The schema of a value that is there. */
  schema: z.ZodType;
}

interface CellMeta {
  cell?: CellKind;
  choices?: readonly string[];
}

function describeColumn(name: string, schema: z.ZodType): Column {
  let inner = schema;
  let required = true;
  if (inner instanceof z.ZodDefault) inner = inner.unwrap() as z.ZodType;
  if (inner instanceof z.ZodNullable) {
    inner = inner.unwrap() as z.ZodType;
    required = false;
  }
  const meta = (inner.meta() ?? {}) as CellMeta;
  if (!meta.cell) throw new Error(`column ${name} does not say how its cells are written`);
  return {
    name,
    cell: meta.cell,
    required,
    schema: inner,
    ...(meta.choices && { choices: meta.choices }),
  };
}

const known = new Map<TableName, readonly Column[]>();

/** The columns of a table, in the order in which they are written. */
export function columnsOf(table: TableName): readonly Column[] {
  let columns = known.get(table);
  if (!columns) {
    columns = Object.entries(tableSpec(table).row.shape).map(([name, schema]) =>
      describeColumn(name, schema as z.ZodType),
    );
    known.set(table, columns);
  }
  return columns;
}

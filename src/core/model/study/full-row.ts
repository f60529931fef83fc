import { columnsOf } from './columns';
import type { Row, TableName } from './tables';

/** What must be known of a row, and what may be. */
export type KnownOf<Whole> = {
  [Name in keyof Whole as null extends Whole[Name] ? never : Name]: Whole[Name];
} & { [Name in keyof Whole as null extends Whole[Name] ? Name : never]?: Whole[Name] };

/** A row of a table from what is known of it: every other column is not known. */
export const fullRow = <Name extends TableName>(
  table: Name,
  known: KnownOf<Row<Name>>,
): Row<Name> => ({
  ...(Object.fromEntries(columnsOf(table).map(({ name }) => [name, null])) as Row<Name>),
  ...known,
});

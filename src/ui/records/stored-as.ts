import type { TableName } from '../../core/model/study';
import type { Stored } from '../../contract/rows';
import type { Values } from './use-record';

/** What the server answered to a form of a table, as a row of it: the server has checked it. */
export const storedAs = <Name extends TableName>(
  answer: Values & { row_version: number },
): Stored<Name> => {
  const row: object = answer;
  return row as Stored<Name>;
};

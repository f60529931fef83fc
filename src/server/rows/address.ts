import { columnsOf, tableSpec, type TableName, isTableName } from '../../core/model/study';
import type { RowKey } from '../../data';
import { RequestError } from '../http/problem';

/** The table of an address. Readings are appended by an endpoint of their own. */
export function tableOf(name: string): TableName {
  if (!isTableName(name)) {
    throw new RequestError(404, `There is no table ${name.slice(0, 80)}.`);
  }
  if (name === 'readings') {
    throw new RequestError(400, 'Readings are appended under /readings, and never changed.');
  }
  return name;
}

/** A key from its parts as text: numbers become numbers, and what cannot be a part is refused. */
export function keyFrom(table: TableName, parts: readonly string[]): RowKey {
  const { key } = tableSpec(table);
  if (parts.length !== key.length) {
    throw new RequestError(400, `A row of ${table} is named by ${key.join('/')}.`);
  }
  const columns = columnsOf(table);
  return Object.fromEntries(
    key.map((name, at) => {
      const column = columns.find((one) => one.name === name);
      const text = parts[at] ?? '';
      const isNumber = column?.cell === 'whole' || column?.cell === 'number';
      const value = isNumber && text.trim() !== '' ? Number(text) : text;
      if (!column?.schema.safeParse(value).success) {
        throw new RequestError(400, `“${text.slice(0, 80)}” cannot be a ${name}.`);
      }
      return [name, value];
    }),
  );
}

/** The key of a row from the parts of an address, in the order of the table's key. */
export function keyOfPath(table: TableName, path: string): RowKey {
  const parts = path.split('/').map((part) => {
    try {
      return decodeURIComponent(part);
    } catch {
      throw new RequestError(400, `“${part.slice(0, 80)}” is not encoded as an address must be.`);
    }
  });
  return keyFrom(table, parts);
}

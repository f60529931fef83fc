import { endpoint, onlyMethods, param } from '../../../../../server/http/endpoint';
import { json } from '../../../../../server/http/problem';
import { historyOfRow, keyFrom, tableOf } from '../../../../../server/rows';
import { tableSpec } from '../../../../../core/model/study';

export const GET = endpoint(
  {
    says: 'The changes of a row, the latest first; its key is in the query.',
    query: { table: 'the table', '…': 'every column of its key, by name' },
  },
  async (context) => {
    const asked = context.url.searchParams;
    const table = tableOf(asked.get('table') ?? '');
    const key = keyFrom(
      table,
      tableSpec(table).key.map((column) => asked.get(column) ?? ''),
    );
    return json(await historyOfRow(context.locals.app, param(context, 'study'), table, key));
  },
);

export const ALL = onlyMethods('GET');

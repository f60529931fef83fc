import { csvText } from '../../../core/model/csv';
import { accessLog } from '../../../server/access/log';
import { endpoint, onlyMethods, queryOf } from '../../../server/http/endpoint';
import { json } from '../../../server/http/problem';

const COLUMNS = ['at', 'what', 'actor', 'name', 'address', 'detail'] as const;
const MOST_SHOWN = 200;
const MOST_EXPORTED = 100_000;

export const GET = endpoint(
  {
    says: 'The access log: who signed in, who failed to, the latest first.',
    gives: [200, { type: 'text/csv' }],
    query: { text: 'what must stand in it', form: 'csv for all of it as a table' },
  },
  async (context) => {
    const text = (queryOf(context, 'text') ?? '').slice(0, 200);
    if (queryOf(context, 'form') !== 'csv')
      return json(await accessLog(context.locals.app, text, MOST_SHOWN));
    const rows = await accessLog(context.locals.app, text, MOST_EXPORTED);
    const table = csvText(
      [
        COLUMNS,
        ...rows.map((row) =>
          COLUMNS.map((name) => (name === 'detail' ? JSON.stringify(row.detail) : row[name])),
        ),
      ],
      { isForSpreadsheets: true },
    );
    return new Response(table, {
      headers: {
        'content-type': 'text/csv; charset=utf-8',
        'content-disposition': 'attachment; filename="access-log.csv"',
        'cache-control': 'no-store',
      },
    });
  },
);

export const ALL = onlyMethods('GET');

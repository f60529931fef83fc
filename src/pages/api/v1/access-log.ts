import Papa from 'papaparse';
import { accessLog } from '../../../server/access/log';
import { endpoint, onlyMethods, queryOf } from '../../../server/http/endpoint';
import { json } from '../../../server/http/problem';

const MOST_SHOWN = 200;
const MOST_EXPORTED = 100_000;

export const GET = endpoint(
  {
    says: 'What happened at the doors, the latest first.',
    gives: [200, { type: 'text/csv' }],
    query: { text: 'what must stand in it', form: 'csv for all of it as a table' },
  },
  async (context) => {
    const text = (queryOf(context, 'text') ?? '').slice(0, 200);
    if (queryOf(context, 'form') !== 'csv') return json(await accessLog(text, MOST_SHOWN));
    const rows = await accessLog(text, MOST_EXPORTED);
    const table = Papa.unparse(
      rows.map((row) => ({ ...row, detail: JSON.stringify(row.detail) })),
      { columns: ['at', 'what', 'actor', 'name', 'address', 'detail'], escapeFormulae: true },
    );
    return new Response(`${table}\n`, {
      headers: {
        'content-type': 'text/csv; charset=utf-8',
        'content-disposition': 'attachment; filename="access-log.csv"',
        'cache-control': 'no-store',
      },
    });
  },
);

export const ALL = onlyMethods('GET');

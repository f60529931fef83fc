import * as z from 'zod';
import { tableSpec, type AnyRow } from '../../../../../../../core/model/study';
import {
  endpoint,
  onlyMethods,
  operatorOf,
  param,
} from '../../../../../../../server/http/endpoint';
import { listAnswer } from '../../../../../../../server/http/list';
import { done, json } from '../../../../../../../server/http/problem';
import { addRow, removeRepeatable, rowsOf, tableOf } from '../../../../../../../server/rows';

export const GET = endpoint(
  { says: 'All rows of a table of a study.', isList: true },
  async (context) => {
    const table = tableOf(param(context, 'table'));
    const { key } = tableSpec(table);
    const rows: readonly AnyRow[] = await rowsOf(
      context.locals.app,
      param(context, 'study'),
      table,
    );
    // Rows of a table without a key are named by all that they say.
    return listAnswer(context, rows, (row) =>
      key.length > 0 ? key.map((name) => row[name]) : row,
    );
  },
);

export const POST = endpoint(
  { says: 'Adds a row.', content: z.record(z.string(), z.unknown()), gives: 201 },
  async (context, row) => {
    const table = tableOf(param(context, 'table'));
    return json(
      await addRow(context.locals.app, param(context, 'study'), table, row, operatorOf(context)),
      201,
    );
  },
);

export const DELETE = endpoint(
  {
    says: 'Removes a row of a table whose rows may repeat; the request names it by its whole content.',
    content: z.record(z.string(), z.unknown()),
    gives: 204,
  },
  async (context, row) => {
    const table = tableOf(param(context, 'table'));
    await removeRepeatable(
      context.locals.app,
      param(context, 'study'),
      table,
      row,
      operatorOf(context),
    );
    return done();
  },
);

export const ALL = onlyMethods('GET', 'POST', 'DELETE');

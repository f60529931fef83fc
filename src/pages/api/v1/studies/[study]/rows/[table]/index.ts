import * as z from 'zod';
import {
  body,
  endpoint,
  onlyMethods,
  operatorOf,
  param,
} from '../../../../../../../server/http/endpoint';
import { json } from '../../../../../../../server/http/problem';
import { addRow, rowsOf, tableOf } from '../../../../../../../server/rows';

/** All rows of a table of a study. */
export const GET = endpoint(async (context) =>
  json(await rowsOf(param(context, 'study'), tableOf(param(context, 'table')))),
);

/** Adds a row. */
export const POST = endpoint(async (context) => {
  const row = await body(context, z.record(z.string(), z.unknown()));
  const table = tableOf(param(context, 'table'));
  return json(await addRow(param(context, 'study'), table, row, operatorOf(context)), 201);
});

export const ALL = onlyMethods('GET', 'POST');

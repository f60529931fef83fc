import type { APIContext } from 'astro';
import * as z from 'zod';
import {
  body,
  endpoint,
  onlyMethods,
  operatorOf,
  param,
} from '../../../../../../../server/http/endpoint';
import { done, json } from '../../../../../../../server/http/problem';
import { changeRow, keyOfPath, removeRow, rowOf, tableOf } from '../../../../../../../server/rows';

const addressOf = (context: APIContext) => {
  const study = param(context, 'study');
  const table = tableOf(param(context, 'table'));
  return { study, table, key: keyOfPath(table, param(context, 'key')) };
};

const changeSchema = z.strictObject({
  version: z.number().int(),
  change: z.record(z.string(), z.unknown()),
});

/** One row, with its version. */
export const GET = endpoint(async (context) => {
  const { study, table, key } = addressOf(context);
  return json(await rowOf(study, table, key));
});

/** Changes some columns of a row, made from a version. */
export const PATCH = endpoint(async (context) => {
  const { study, table, key } = addressOf(context);
  const { version, change } = await body(context, changeSchema);
  return json(await changeRow(study, table, key, change, version, operatorOf(context)));
});

/** Takes a row out; a dimension that was measured is kept as retired, and the answer says so. */
export const DELETE = endpoint(async (context) => {
  const { study, table, key } = addressOf(context);
  const { version } = await body(context, z.strictObject({ version: z.number().int() }));
  const { isRetired } = await removeRow(study, table, key, version, operatorOf(context));
  return isRetired ? json({ is_retired: true }) : done();
});

export const ALL = onlyMethods('GET', 'PATCH', 'DELETE');

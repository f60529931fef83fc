import { z } from 'zod';
import { findRow } from '../../../../../../../data';
import { app } from '../../../../../../../server/app';
import { body, endpoint, operatorOf, param } from '../../../../../../../server/http/endpoint';
import { json } from '../../../../../../../server/http/problem';
import { removeRow } from '../../../../../../../server/remove-row';
import { changeRow, keyOf, tableOf } from '../../../../../../../server/rows';
import type { APIContext } from 'astro';

const addressOf = (context: APIContext) => {
  const study = param(context, 'study');
  const table = tableOf(param(context, 'table'));
  return { study, table, key: keyOf(table, param(context, 'key')) };
};

const changeSchema = z.strictObject({
  version: z.number().int(),
  change: z.record(z.string(), z.unknown()),
});

/** One row, with its version. */
export const GET = endpoint(async (context) => {
  const { study, table, key } = addressOf(context);
  return json(await findRow(app().db, study, table, key));
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
  if (isRetired) return json({ is_retired: true });
  return new Response(null, { status: 204 });
});

import { z } from 'zod';
import { deleteRow, findRow } from '../../../../../../../data';
import { app } from '../../../../../../../server/app';
import { retireDimension } from '../../../../../../../server/artefacts';
import { body, endpoint, operatorOf, param } from '../../../../../../../server/http/endpoint';
import { json } from '../../../../../../../server/http/problem';
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

/** Takes a row out. */
export const DELETE = endpoint(async (context) => {
  const { study, table, key } = addressOf(context);
  const { version } = await body(context, z.strictObject({ version: z.number().int() }));
  const who = operatorOf(context);
  if (table === 'dimensions') {
    // Its readings are evidence: with any, it is kept as retired.
    await retireDimension(study, String(key.artefact_id), String(key.dimension_id), null, who);
  } else await deleteRow(app().db, study, table, key, version, who);
  return new Response(null, { status: 204 });
});

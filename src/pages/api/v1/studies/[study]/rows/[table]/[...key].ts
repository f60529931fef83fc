import type { APIContext } from 'astro';
import * as z from 'zod';
import {
  endpoint,
  onlyMethods,
  operatorOf,
  param,
} from '../../../../../../../server/http/endpoint';
import { versioned } from '../../../../../../../server/http/conditional';
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

export const GET = endpoint({ says: 'One row, with its version.' }, async (context) => {
  const { study, table, key } = addressOf(context);
  return versioned(await rowOf(context.locals.app, study, table, key));
});

export const PATCH = endpoint(
  {
    says: 'Changes some columns of a row, made from a version.',
    content: changeSchema,
    example: { content: { version: 1, change: { firmware: '4.1.1' } } },
  },
  async (context, { version, change }) => {
    const { study, table, key } = addressOf(context);
    return versioned(
      await changeRow(context.locals.app, study, table, key, change, version, operatorOf(context)),
    );
  },
);

export const DELETE = endpoint(
  {
    says: 'Removes a row; a dimension with readings is retired instead, and the answer says so.',
    content: z.strictObject({ version: z.number().int() }),
    example: { content: { version: 2 } },
    gives: [200, 204],
  },
  async (context, { version }) => {
    const { study, table, key } = addressOf(context);
    const { isRetired } = await removeRow(
      context.locals.app,
      study,
      table,
      key,
      version,
      operatorOf(context),
    );
    return isRetired ? json({ is_retired: true }) : done();
  },
);

export const ALL = onlyMethods('GET', 'PATCH', 'DELETE');

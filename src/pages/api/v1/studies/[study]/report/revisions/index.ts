import * as z from 'zod';
import {
  endpoint,
  onlyMethods,
  operatorOf,
  param,
} from '../../../../../../../server/http/endpoint';
import { json } from '../../../../../../../server/http/problem';
import { freeze, revisionsOf } from '../../../../../../../server/report/revisions';

export const GET = endpoint(
  { says: 'The revisions of a report, the latest first.' },
  async (context) => json(await revisionsOf(context.locals.app, param(context, 'study'))),
);

export const POST = endpoint(
  {
    says: 'Freezes the study: the next revision is made.',
    content: z.strictObject({}),
    example: { content: {} },
    gives: 202,
  },
  async (context) => {
    return json(
      await freeze(context.locals.app, param(context, 'study'), operatorOf(context)),
      202,
    );
  },
);

export const ALL = onlyMethods('GET', 'POST');

import * as z from 'zod';
import {
  endpoint,
  onlyMethods,
  operatorOf,
  param,
} from '../../../../../../../../server/http/endpoint';
import { done } from '../../../../../../../../server/http/problem';
import { numberOf } from '../../../../../../../../server/report/address';
import {
  changeRevision,
  makeAgain,
  revisionChangeSchema,
  throwRevisionAway,
} from '../../../../../../../../server/report/revisions';

export const PATCH = endpoint(
  {
    says: 'Publishes a revision, or withdraws it.',
    content: revisionChangeSchema,
    example: { content: { publish: true, name: 'clips-2026' } },
    gives: 204,
  },
  async (context, change) => {
    await changeRevision(
      context.locals.app,
      param(context, 'study'),
      numberOf(context),
      change,
      operatorOf(context),
    );
    return done();
  },
);

export const POST = endpoint(
  {
    says: 'Retries a revision that failed.',
    content: z.strictObject({ action: z.literal('make-again') }),
    example: { content: { action: 'make-again' } },
    gives: 204,
  },
  async (context) => {
    await makeAgain(context.locals.app, param(context, 'study'), numberOf(context));
    return done();
  },
);

export const DELETE = endpoint(
  { says: 'Throws a revision away that was never published.', gives: 204 },
  async (context) => {
    await throwRevisionAway(
      context.locals.app,
      param(context, 'study'),
      numberOf(context),
      operatorOf(context),
    );
    return done();
  },
);

export const ALL = onlyMethods('PATCH', 'POST', 'DELETE');

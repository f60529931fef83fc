import { endpoint, onlyMethods, param } from '../../../../server/http/endpoint';
import { done, json } from '../../../../server/http/problem';
import {
  actOnThing,
  changeItem,
  dropItem,
  thingActionSchema,
  thingChangeSchema,
  thingOf,
} from '../../../../server/workshop/things';

export const GET = endpoint(
  { says: 'A thing of the workshop as it is known today.' },
  async (context) => json(await thingOf(context.locals.app, param(context, 'uid'))),
);

export const PATCH = endpoint(
  {
    says: 'Changes what is known of it today; studies keep what they have.',
    content: thingChangeSchema,
    example: { content: { version: 3, change: { firmware: '2.4.1' } } },
  },
  async (context, content) =>
    json(await changeItem(context.locals.app, param(context, 'uid'), content)),
);

export const POST = endpoint(
  {
    says: 'Merges it with another, undoes a merge, marks two as different, or restores it to the lists.',
    content: thingActionSchema,
    example: { content: { action: 'merge', other: '0190c1de-8c52-7b6e-9f5a-2f8b1a4e6c70' } },
    gives: 204,
  },
  async (context, content) => {
    await actOnThing(context.locals.app, param(context, 'uid'), content);
    return done();
  },
);

export const DELETE = endpoint({ says: 'Archives it.', gives: 204 }, async (context) => {
  await dropItem(context.locals.app, param(context, 'uid'));
  return done();
});

export const ALL = onlyMethods('GET', 'PATCH', 'POST', 'DELETE');

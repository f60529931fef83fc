import { endpoint, onlyMethods, queryOf } from '../../../../server/http/endpoint';
import { listAnswer } from '../../../../server/http/list';
import { json } from '../../../../server/http/problem';
import { makeItem, newThingSchema, thingKind, thingsOf } from '../../../../server/workshop/things';

export const GET = endpoint(
  {
    isList: true,
    says: 'The things of a kind that are in the lists of the workshop.',
    query: { kind: 'machine, profile, material, artefact or instrument' },
  },
  async (context) =>
    listAnswer(
      context,
      await thingsOf(context.locals.app, thingKind.parse(queryOf(context, 'kind'))),
      (thing) => thing.uid,
    ),
);

export const POST = endpoint(
  {
    says: 'Adds a thing that no study has yet.',
    content: newThingSchema,
    example: { content: { kind: 'machine', facts: { name: 'Auklet 19', maker: 'Skerry Works' } } },
    gives: 201,
  },
  async (_, content) => json(await makeItem(_.locals.app, content), 201),
);

export const ALL = onlyMethods('GET', 'POST');

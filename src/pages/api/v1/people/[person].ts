import { alterPerson, linkFor, personChangeSchema } from '../../../../server/access/people';
import { endpoint, onlyMethods, uuidParam } from '../../../../server/http/endpoint';
import { json } from '../../../../server/http/problem';

export const PATCH = endpoint(
  {
    says: "Changes somebody's role or initials, closes or opens the door to them.",
    content: personChangeSchema,
    example: { content: { version: 1, role: 'evaluator' } },
  },
  async (context, content) =>
    json(await alterPerson(context.locals.app, uuidParam(context, 'person'), content)),
);

export const POST = endpoint(
  { says: 'A link by which somebody sets another password.', isSecret: true, gives: 201 },
  async (context) => json(await linkFor(context.locals.app, uuidParam(context, 'person')), 201),
);

export const ALL = onlyMethods('PATCH', 'POST');

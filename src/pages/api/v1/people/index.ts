import { addPerson, people, personSchema } from '../../../../server/access/people';
import { endpoint, onlyMethods } from '../../../../server/http/endpoint';
import { json } from '../../../../server/http/problem';

export const GET = endpoint({ says: 'Everyone who has an account.' }, async ({ locals }) =>
  json(await people(locals.app)),
);

export const POST = endpoint(
  {
    says: 'Makes somebody, with a link by which they set their password.',
    content: personSchema,
    example: { content: { name: 'Kim', initials: 'KM', role: 'operator' } },
    isSecret: true,
    gives: 201,
  },
  async (_, content) => json(await addPerson(_.locals.app, content), 201),
);

export const ALL = onlyMethods('GET', 'POST');

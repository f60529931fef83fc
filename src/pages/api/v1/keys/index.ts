import { addKey, keys, keySchema } from '../../../../server/access/keys';
import { endpoint, onlyMethods } from '../../../../server/http/endpoint';
import { json } from '../../../../server/http/problem';

export const GET = endpoint(
  { says: 'The keys for programs; never their secrets.' },
  async ({ locals }) => json(await keys(locals.app)),
);

export const POST = endpoint(
  {
    says: 'Makes a key; its secret is in this answer only.',
    content: keySchema,
    example: { content: { name: 'caliper at bench 2', role: 'operator', days: 90 } },
    isSecret: true,
    gives: 201,
  },
  async (_, content) => json(await addKey(_.locals.app, content), 201),
);

export const ALL = onlyMethods('GET', 'POST');

import * as z from 'zod';
import { ROLES } from '../../../../../core/model/access';
import { localPath } from '../../../../../server/access/local-path';
import { myDevices, pairDevice } from '../../../../../server/access/devices';
import { endpoint, onlyMethods } from '../../../../../server/http/endpoint';
import { json } from '../../../../../server/http/problem';

const pairSchema = z.strictObject({
  role: z.enum(ROLES),
  leads_to: z.string().max(2000).default('/'),
});

export const GET = endpoint(
  { says: 'The devices that who asks is signed in on.' },
  async ({ locals }) => json(await myDevices(locals.app)),
);

export const POST = endpoint(
  {
    says: 'A link that signs another device in, good once and for minutes.',
    content: pairSchema,
    example: { content: { role: 'operator', leads_to: '/' } },
    isSecret: true,
    gives: 201,
  },
  async (_, { role, leads_to }) => {
    return json(await pairDevice(_.locals.app, role, localPath(leads_to)), 201);
  },
);

export const ALL = onlyMethods('GET', 'POST');

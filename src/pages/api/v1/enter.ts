import * as z from 'zod';
import { cookieHeader, deviceOf, enterByLink } from '../../../server/access/sign-in';
import { addressOf } from '../../../server/access/who';
import { endpoint, onlyMethods } from '../../../server/http/endpoint';
import { json } from '../../../server/http/problem';

const enterSchema = z.strictObject({
  token: z.string().max(100),
  name: z.string().max(80).optional(),
  initials: z.string().max(20).optional(),
  password: z.string().max(1024).optional(),
});

export const POST = endpoint(
  {
    says: 'Comes in by a link, once.',
    content: enterSchema,
    example: { content: { token: 'q0mX…', name: 'Tessa', password: 'caliper on a cold bench' } },
  },
  async (context, { token, ...said }) => {
    const { headers } = context.request;
    const visitor = { address: addressOf(headers), device: deviceOf(headers.get('user-agent')) };
    const entered = await enterByLink(context.locals.app, token, said, visitor);
    const answer = json({ to: entered.leadsTo });
    answer.headers.append('set-cookie', cookieHeader(entered.token));
    return answer;
  },
);

export const ALL = onlyMethods('POST');

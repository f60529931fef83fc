import * as z from 'zod';
import { cookieHeader, deviceOf, signIn } from '../../../../server/access/sign-in';
import { addressOf } from '../../../../server/access/who';
import { endpoint, onlyMethods } from '../../../../server/http/endpoint';
import { done } from '../../../../server/http/problem';

const signInSchema = z.strictObject({
  name: z.string().trim().min(1, 'is missing').max(80),
  password: z.string().min(1, 'is missing').max(1024),
});

export const POST = endpoint(
  {
    says: 'Signs somebody in by name and password.',
    content: signInSchema,
    example: { content: { name: 'Tessa', password: 'caliper on a cold bench' } },
    gives: 204,
  },
  async (context, { name, password }) => {
    const { headers } = context.request;
    const visitor = { address: addressOf(headers), device: deviceOf(headers.get('user-agent')) };
    const answer = done();
    answer.headers.append(
      'set-cookie',
      cookieHeader(await signIn(context.locals.app, name, password, visitor)),
    );
    return answer;
  },
);

export const ALL = onlyMethods('POST');

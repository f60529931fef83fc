import { RIGHTS } from '../../../../core/model/access';
import { mayNow, presentWorker } from '../../../../server/http/actor';
import { changeOwnPassword, ownChangeSchema, signOut } from '../../../../server/access/devices';
import { cookieHeader } from '../../../../server/access/sign-in';
import { addressOf } from '../../../../server/access/who';
import { endpoint, onlyMethods } from '../../../../server/http/endpoint';
import { done, json, RequestError } from '../../../../server/http/problem';

export const GET = endpoint({ says: 'Who asks, and what they may do.' }, () => {
  const worker = presentWorker();
  if (!worker) throw new RequestError(401, 'No one is signed in here.');
  const { kind, name, initials, role } = worker;
  return Promise.resolve(json({ kind, name, initials, role, rights: RIGHTS.filter(mayNow) }));
});

export const PATCH = endpoint(
  {
    says: 'Changes the password of who asks.',
    content: ownChangeSchema,
    example: {
      content: { current: 'caliper on a cold bench', password: 'three prints before breakfast' },
    },
    gives: 204,
  },
  async (context, change) => {
    await changeOwnPassword(context.locals.app, change, addressOf(context.request.headers));
    return done();
  },
);

export const DELETE = endpoint({ says: 'Signs out.', gives: 204 }, async ({ locals }) => {
  await signOut(locals.app);
  const answer = done();
  answer.headers.append('set-cookie', cookieHeader(null));
  return answer;
});

export const ALL = onlyMethods('GET', 'PATCH', 'DELETE');

import {
  addPasskey,
  addPasskeySchema,
  beginPasskey,
  beginPasskeySchema,
  myPasskeys,
} from '../../../../../server/access/passkeys';
import { addressOf } from '../../../../../server/access/who';
import { endpoint, onlyMethods } from '../../../../../server/http/endpoint';
import { done, json } from '../../../../../server/http/problem';

const hostOf = (headers: Headers): string => headers.get('host') ?? '';

export const GET = endpoint({ says: 'The passkeys of who asks.' }, async ({ locals }) =>
  json(await myPasskeys(locals.app)),
);

export const POST = endpoint(
  {
    says: 'What a browser makes a passkey of; the password is asked once more.',
    content: beginPasskeySchema,
    isSecret: true,
    example: { content: { current: 'caliper on a cold bench' } },
  },
  async ({ request: { headers }, locals }, { current }) =>
    json(await beginPasskey(locals.app, current, hostOf(headers), addressOf(headers))),
);

export const PUT = endpoint(
  {
    says: 'Keeps a passkey that a browser has made.',
    content: addPasskeySchema,
    example: {
      content: {
        name: 'phone',
        response: {
          id: 'q0mX',
          rawId: 'q0mX',
          type: 'public-key',
          clientExtensionResults: {},
          response: { clientDataJSON: 'eyJ0', attestationObject: 'o2Nm' },
        },
      },
    },
    gives: 204,
  },
  async ({ request: { headers }, locals }, said) => {
    await addPasskey(locals.app, said, hostOf(headers));
    return done();
  },
);

export const ALL = onlyMethods('GET', 'POST', 'PUT');

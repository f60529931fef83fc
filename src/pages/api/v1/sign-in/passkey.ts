import {
  beginPasskeySignIn,
  passkeySignInSchema,
  signInByPasskey,
} from '../../../../server/access/passkeys';
import { cookieHeader, deviceOf } from '../../../../server/access/sign-in';
import { addressOf } from '../../../../server/access/who';
import { endpoint, onlyMethods } from '../../../../server/http/endpoint';
import { done, json } from '../../../../server/http/problem';

const hostOf = (headers: Headers): string => headers.get('host') ?? '';

export const POST = endpoint(
  { says: 'What a browser signs with a passkey to sign somebody in.' },
  async ({ request: { headers }, locals }) =>
    json(await beginPasskeySignIn(locals.app, hostOf(headers), addressOf(headers))),
);

export const PUT = endpoint(
  {
    says: 'Signs somebody in by a passkey.',
    content: passkeySignInSchema,
    example: {
      content: {
        response: {
          id: 'q0mX',
          rawId: 'q0mX',
          type: 'public-key',
          clientExtensionResults: {},
          response: { clientDataJSON: 'eyJ0', authenticatorData: 'SZYN', signature: 'MEUC' },
        },
      },
    },
    gives: 204,
  },
  async ({ request: { headers }, locals }, said) => {
    const visitor = { address: addressOf(headers), device: deviceOf(headers.get('user-agent')) };
    const answer = done();
    const token = await signInByPasskey(locals.app, said, hostOf(headers), visitor);
    answer.headers.append('set-cookie', cookieHeader(token));
    return answer;
  },
);

export const ALL = onlyMethods('POST', 'PUT');

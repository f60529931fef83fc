import { dropPasskey } from '../../../../../server/access/passkeys';
import { endpoint, onlyMethods, uuidParam } from '../../../../../server/http/endpoint';
import { done } from '../../../../../server/http/problem';

export const DELETE = endpoint(
  { says: 'Takes a passkey of who asks away.', gives: 204 },
  async (context) => {
    await dropPasskey(context.locals.app, uuidParam(context, 'passkey'));
    return done();
  },
);

export const ALL = onlyMethods('DELETE');

import { endDevice } from '../../../../../server/access/devices';
import { endpoint, onlyMethods, uuidParam } from '../../../../../server/http/endpoint';
import { done } from '../../../../../server/http/problem';

export const DELETE = endpoint({ says: 'Signs a device out.', gives: 204 }, async (context) => {
  await endDevice(context.locals.app, uuidParam(context, 'device'));
  return done();
});

export const ALL = onlyMethods('DELETE');

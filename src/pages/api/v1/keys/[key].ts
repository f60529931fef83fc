import { takeKeyBack } from '../../../../server/access/keys';
import { endpoint, onlyMethods, uuidParam } from '../../../../server/http/endpoint';
import { done } from '../../../../server/http/problem';

export const DELETE = endpoint(
  { says: 'Takes a key back: nothing is let in by it any more.', gives: 204 },
  async (context) => {
    await takeKeyBack(context.locals.app, uuidParam(context, 'key'));
    return done();
  },
);

export const ALL = onlyMethods('DELETE');

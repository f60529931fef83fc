import { endpoint, onlyMethods, uuidParam } from '../../../../../server/http/endpoint';
import { json } from '../../../../../server/http/problem';
import { liveStream, standing } from '../../../../../server/live';

export const GET = endpoint(
  {
    says: 'The changes of a study as they happen, as events; its present state as JSON.',
    gives: [200, { type: 'text/event-stream' }],
  },
  async (context) => {
    const study = uuidParam(context, 'study');
    const isAsked = context.request.headers.get('accept')?.includes('application/json') === true;
    return isAsked
      ? json(await standing(context.locals.app, study))
      : liveStream(context.locals.app, study, context.request.signal);
  },
);

export const ALL = onlyMethods('GET');

import { endpoint, onlyMethods, uuidParam } from '../../../../../server/http/endpoint';
import { json } from '../../../../../server/http/problem';
import { liveStream, standing } from '../../../../../server/live';

export const GET = endpoint(
  {
    says: 'What becomes of a study while somebody looks at it: as it happens, or how it stands for who asks for JSON.',
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

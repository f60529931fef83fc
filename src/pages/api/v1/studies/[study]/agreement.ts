import { endpoint, onlyMethods, param, queryOf } from '../../../../../server/http/endpoint';
import { json, RequestError } from '../../../../../server/http/problem';
import { agreementData } from '../../../../../server/inspect/agreement';

export const GET = endpoint(
  {
    says: 'Where an inspector and others differ, of the zones that they have graded.',
    query: { inspector: 'the initials of who asks' },
  },
  async (context) => {
    const inspector = queryOf(context, 'inspector')?.trim() ?? '';
    if (inspector === '') throw new RequestError(400, 'Say who asks: ?inspector=initials');
    return json(await agreementData(context.locals.app, param(context, 'study'), inspector));
  },
);

export const ALL = onlyMethods('GET');

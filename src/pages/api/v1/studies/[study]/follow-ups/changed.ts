import { endpoint, onlyMethods, param, queryOf } from '../../../../../../server/http/endpoint';
import { json } from '../../../../../../server/http/problem';
import { changedBetween } from '../../../../../../server/runs/follow-ups';

export const GET = endpoint(
  {
    says: 'What differs between two prints, the second of which may be planned only.',
    query: { before: 'the first print', after: 'the second print, or a place of the plan' },
  },
  async (context) => {
    const [before, after] = [queryOf(context, 'before') ?? '', queryOf(context, 'after') ?? ''];
    return json(await changedBetween(context.locals.app, param(context, 'study'), before, after));
  },
);

export const ALL = onlyMethods('GET');

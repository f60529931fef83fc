import { endpoint, onlyMethods, param } from '../../../../../../../../server/http/endpoint';
import { json } from '../../../../../../../../server/http/problem';
import { numberFrom, numberOf } from '../../../../../../../../server/report/address';
import { compareRevisions } from '../../../../../../../../server/report/revisions';

export const GET = endpoint(
  {
    says: 'What is different in a revision against an older one.',
    query: { since: 'the number of the older one' },
  },
  async (context) => {
    const since = numberFrom(context.url.searchParams.get('since') ?? '');
    return json(
      await compareRevisions(context.locals.app, param(context, 'study'), since, numberOf(context)),
    );
  },
);

export const ALL = onlyMethods('GET');

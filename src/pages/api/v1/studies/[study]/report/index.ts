import { endpoint, onlyMethods, param } from '../../../../../../server/http/endpoint';
import { json } from '../../../../../../server/http/problem';
import { reportPage } from '../../../../../../server/report/page';

export const GET = endpoint(
  { says: 'The words of a report, what is ready and what is missing, its revisions.' },
  async (context) =>
    json(await reportPage(context.locals.app, { studyId: param(context, 'study') })),
);

export const ALL = onlyMethods('GET');

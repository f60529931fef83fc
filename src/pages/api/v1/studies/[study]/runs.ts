import { endpoint, onlyMethods, param } from '../../../../../server/http/endpoint';
import { json } from '../../../../../server/http/problem';
import { runsOfStudy } from '../../../../../server/runs/page';

export const GET = endpoint(
  { says: 'What the bench shows while machines print.' },
  async (context) => json(await runsOfStudy(context.locals.app, param(context, 'study'))),
);

export const ALL = onlyMethods('GET');

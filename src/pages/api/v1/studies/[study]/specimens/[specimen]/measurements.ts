import { endpoint, onlyMethods, param } from '../../../../../../../server/http/endpoint';
import { json } from '../../../../../../../server/http/problem';
import { measurementsOf } from '../../../../../../../server/measure/readings';

export const GET = endpoint(
  { says: 'The readings of a specimen that count, and what of it cannot be measured.' },
  async (context) =>
    json(
      await measurementsOf(context.locals.app, param(context, 'study'), param(context, 'specimen')),
    ),
);

export const ALL = onlyMethods('GET');

import {
  body,
  endpoint,
  onlyMethods,
  operatorOf,
  param,
} from '../../../../../server/http/endpoint';
import { json } from '../../../../../server/http/problem';
import { setSweepUp, sweepSetUpSchema } from '../../../../../server/study/sweep';

/** Sets the steps of a sweep up from one contender. */
export const POST = endpoint(async (context) => {
  const asked = await body(context, sweepSetUpSchema);
  return json(await setSweepUp(param(context, 'study'), asked, operatorOf(context)), 201);
});

export const ALL = onlyMethods('POST');

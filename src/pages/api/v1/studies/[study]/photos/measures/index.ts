import {
  body,
  endpoint,
  onlyMethods,
  operatorOf,
  param,
} from '../../../../../../../server/http/endpoint';
import { json } from '../../../../../../../server/http/problem';
import { measureOn, measureSchema } from '../../../../../../../server/photos';

/** Measures a region on photos, and keeps what came out of all of them. */
export const POST = endpoint(async (context) => {
  const asked = await body(context, measureSchema);
  return json(await measureOn(param(context, 'study'), asked, operatorOf(context)), 201);
});

export const ALL = onlyMethods('POST');

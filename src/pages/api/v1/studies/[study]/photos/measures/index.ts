import {
  body,
  endpoint,
  onlyMethods,
  operatorOf,
  param,
} from '../../../../../../../server/http/endpoint';
import { json } from '../../../../../../../server/http/problem';
import { measureOn, measureSchema } from '../../../../../../../server/photos';

/** Measures a region of a photo, and keeps what came out. */
export const POST = endpoint(async (context) => {
  const asked = await body(context, measureSchema);
  return json(await measureOn(param(context, 'study'), asked, operatorOf(context)), 201);
});

export const ALL = onlyMethods('POST');

import {
  body,
  endpoint,
  onlyMethods,
  operatorOf,
  param,
} from '../../../../../server/http/endpoint';
import { json } from '../../../../../server/http/problem';
import { aftercareSchema, keepAftercare } from '../../../../../server/inspect/aftercare';

/** Keeps how long hands worked on a specimen. */
export const POST = endpoint(async (context) => {
  const content = await body(context, aftercareSchema);
  return json(await keepAftercare(param(context, 'study'), content, operatorOf(context)));
});

export const ALL = onlyMethods('POST');

import {
  body,
  endpoint,
  onlyMethods,
  operatorOf,
  param,
} from '../../../../../../server/http/endpoint';
import { json } from '../../../../../../server/http/problem';
import { addReadings, readingSchema, readingsOf } from '../../../../../../server/measure/readings';

/** The readings of a study that count. */
export const GET = endpoint(async (context) => json(await readingsOf(param(context, 'study'))));

/** Keeps a reading; sent again with the same id, it is kept once. */
export const POST = endpoint(async (context) => {
  const reading = await body(context, readingSchema);
  const [kept] = await addReadings(param(context, 'study'), [reading], operatorOf(context));
  return json(kept, 201);
});

export const ALL = onlyMethods('GET', 'POST');

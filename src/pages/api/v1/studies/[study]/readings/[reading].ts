import * as z from 'zod';
import { time } from '../../../../../../core/study';
import {
  body,
  endpoint,
  onlyMethods,
  operatorOf,
  param,
} from '../../../../../../server/http/endpoint';
import { json } from '../../../../../../server/http/problem';
import { takeBackReading } from '../../../../../../server/measure/readings';

const takenBackSchema = z.strictObject({ at: time() });

/** Takes a reading back: it is kept, and no longer counts. */
export const DELETE = endpoint(async (context) => {
  const { at } = await body(context, takenBackSchema);
  const id = z.uuid().parse(param(context, 'reading'));
  return json(await takeBackReading(param(context, 'study'), id, at, operatorOf(context)));
});

export const ALL = onlyMethods('DELETE');

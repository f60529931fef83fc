import * as z from 'zod';
import {
  body,
  endpoint,
  onlyMethods,
  operatorOf,
  param,
} from '../../../../../../server/http/endpoint';
import { json } from '../../../../../../server/http/problem';
import { addReadings, readingSchema } from '../../../../../../server/measure/readings';

const batchSchema = z.strictObject({ readings: z.array(readingSchema).min(1).max(3000) });

/** Keeps many readings, all of them or none; sent again with the same ids, they are kept once. */
export const POST = endpoint(async (context) => {
  const { readings } = await body(context, batchSchema);
  const kept = await addReadings(param(context, 'study'), readings, operatorOf(context));
  return json({ kept: kept.length }, 201);
});

export const ALL = onlyMethods('POST');

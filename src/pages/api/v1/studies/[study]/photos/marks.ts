import * as z from 'zod';
import {
  body,
  endpoint,
  onlyMethods,
  operatorOf,
  param,
  queryOf,
} from '../../../../../../server/http/endpoint';
import { json, RequestError } from '../../../../../../server/http/problem';
import { carryMarks, marksSchema, proposeMarks, setMarks } from '../../../../../../server/photos';

const carrySchema = z.strictObject({ path: marksSchema.shape.path });

/** Proposes marks for the photo at `?path=`. */
export const GET = endpoint(async (context) => {
  const path = queryOf(context, 'path');
  if (!path) throw new RequestError(400, '?path= must name the photo.');
  return json(await proposeMarks(param(context, 'study'), path));
});

/** Ties a photo to its view by marks, in place of those that it had. */
export const PUT = endpoint(async (context) => {
  const marks = await body(context, marksSchema);
  return json(await setMarks(param(context, 'study'), marks, operatorOf(context)));
});

/** Carries a photo's marks over to the others of its session. */
export const POST = endpoint(async (context) => {
  const { path } = await body(context, carrySchema);
  return json(await carryMarks(param(context, 'study'), path, operatorOf(context)));
});

export const ALL = onlyMethods('GET', 'PUT', 'POST');

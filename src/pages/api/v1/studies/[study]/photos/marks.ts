import * as z from 'zod';
import {
  endpoint,
  onlyMethods,
  operatorOf,
  param,
  queryOf,
} from '../../../../../../server/http/endpoint';
import { json, RequestError } from '../../../../../../server/http/problem';
import { carryMarks, marksSchema, proposeMarks, setMarks } from '../../../../../../server/photos';

const carrySchema = z.strictObject({ path: marksSchema.shape.path });

export const GET = endpoint(
  {
    says: 'Proposes marks for a photo.',
    query: { path: 'the path of the photo in the study' },
  },
  async (context) => {
    const path = queryOf(context, 'path');
    if (!path) throw new RequestError(400, '?path= must name the photo.');
    return json(await proposeMarks(context.locals.app, param(context, 'study'), path));
  },
);

export const PUT = endpoint(
  {
    says: 'Ties a photo to its view by marks, in place of those that it had.',
    content: marksSchema,
    example: {
      content: { path: 'photos/top.jpg', marks: [{ u_px: 120.5, v_px: 88.25, x_mm: 0, y_mm: 0 }] },
    },
  },
  async (context, marks) => {
    return json(
      await setMarks(context.locals.app, param(context, 'study'), marks, operatorOf(context)),
    );
  },
);

export const POST = endpoint(
  {
    says: "Carries a photo's marks over to the others of its session.",
    content: carrySchema,
    example: { content: { path: 'photos/top.jpg' } },
  },
  async (context, { path }) => {
    return json(
      await carryMarks(context.locals.app, param(context, 'study'), path, operatorOf(context)),
    );
  },
);

export const ALL = onlyMethods('GET', 'PUT', 'POST');

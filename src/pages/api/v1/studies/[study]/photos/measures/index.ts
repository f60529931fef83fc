import {
  endpoint,
  onlyMethods,
  operatorOf,
  param,
} from '../../../../../../../server/http/endpoint';
import { json } from '../../../../../../../server/http/problem';
import { measureOn, measureSchema } from '../../../../../../../server/photos';

export const POST = endpoint(
  {
    says: 'Measures a region on photos and saves the results.',
    content: measureSchema,
    example: {
      content: {
        measure: 'ringing',
        unit: 'mm',
        x: 10,
        y: 12,
        w: 40,
        h: 20,
        photos: [{ path: 'photos/top.jpg' }],
      },
    },
    gives: 201,
  },
  async (context, asked) => {
    return json(
      await measureOn(context.locals.app, param(context, 'study'), asked, operatorOf(context)),
      201,
    );
  },
);

export const ALL = onlyMethods('POST');

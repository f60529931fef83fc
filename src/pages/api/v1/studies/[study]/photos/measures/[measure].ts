import {
  endpoint,
  onlyMethods,
  operatorOf,
  param,
} from '../../../../../../../server/http/endpoint';
import { done } from '../../../../../../../server/http/problem';
import { removeMeasure } from '../../../../../../../server/photos';

export const DELETE = endpoint({ says: 'Takes a measure out.', gives: 204 }, async (context) => {
  await removeMeasure(
    context.locals.app,
    param(context, 'study'),
    param(context, 'measure'),
    operatorOf(context),
  );
  return done();
});

export const ALL = onlyMethods('DELETE');

import {
  endpoint,
  onlyMethods,
  operatorOf,
  param,
} from '../../../../../../../server/http/endpoint';
import { done } from '../../../../../../../server/http/problem';
import { removeMeasure } from '../../../../../../../server/photos';

/** Takes a measure out. */
export const DELETE = endpoint(async (context) => {
  await removeMeasure(param(context, 'study'), param(context, 'measure'), operatorOf(context));
  return done();
});

export const ALL = onlyMethods('DELETE');

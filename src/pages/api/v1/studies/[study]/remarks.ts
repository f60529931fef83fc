import {
  body,
  endpoint,
  onlyMethods,
  operatorOf,
  param,
} from '../../../../../server/http/endpoint';
import { done } from '../../../../../server/http/problem';
import { remarkSchema, takeRemarkBack } from '../../../../../server/study/remarks';
import type { Row } from '../../../../../core/study';

/** Takes a remark back; it is named by all that it says. */
export const DELETE = endpoint(async (context) => {
  const remark = (await body(context, remarkSchema)) as Row<'marks'>;
  await takeRemarkBack(param(context, 'study'), remark, operatorOf(context));
  return done();
});

export const ALL = onlyMethods('DELETE');

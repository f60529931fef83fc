import {
  body,
  endpoint,
  onlyMethods,
  operatorOf,
  param,
  queryOf,
} from '../../../../../server/http/endpoint';
import { done, json, RequestError } from '../../../../../server/http/problem';
import { keepWord, wordsOf, wordSchema } from '../../../../../server/inspect/inspections';

/** What the inspector in `?inspector=` has said of the zones of all specimens. */
export const GET = endpoint(async (context) => {
  const inspector = queryOf(context, 'inspector')?.trim() ?? '';
  if (inspector === '') throw new RequestError(400, 'Say whose inspections: ?inspector=initials');
  return json(await wordsOf(param(context, 'study'), inspector));
});

/** Keeps all that an inspector says of a zone of a specimen, in place of what they said before. */
export const POST = endpoint(async (context) => {
  const word = await body(context, wordSchema);
  await keepWord(param(context, 'study'), word, operatorOf(context));
  return done();
});

export const ALL = onlyMethods('GET', 'POST');

import * as z from 'zod';
import {
  body,
  endpoint,
  onlyMethods,
  operatorOf,
  param,
} from '../../../../../server/http/endpoint';
import { done, json } from '../../../../../server/http/problem';
import {
  aboutStudy,
  bringStudyBack,
  changeStudy,
  putStudyAway,
  studyChangeSchema,
} from '../../../../../server/study/studies';

/** What a study is about, with its version. */
export const GET = endpoint(async (context) => json(await aboutStudy(param(context, 'study'))));

/** Changes what a study is about. */
export const PATCH = endpoint(async (context) => {
  const change = await body(context, studyChangeSchema);
  return json(await changeStudy(param(context, 'study'), change, operatorOf(context)));
});

/** Puts a study away, once its title is given; it can be brought back for 30 days. */
export const DELETE = endpoint(async (context) => {
  const { title } = await body(context, z.strictObject({ title: z.string() }));
  await putStudyAway(param(context, 'study'), title, operatorOf(context));
  return done();
});

/** Brings a deleted study back. */
export const POST = endpoint(async (context) => {
  await body(context, z.strictObject({ action: z.literal('restore') }));
  await bringStudyBack(param(context, 'study'));
  return done();
});

export const ALL = onlyMethods('GET', 'PATCH', 'DELETE', 'POST');

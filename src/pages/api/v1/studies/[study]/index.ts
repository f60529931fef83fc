import { studyRead } from '../../../../../server/api/answers';
import * as z from 'zod';
import { endpoint, onlyMethods, operatorOf, param } from '../../../../../server/http/endpoint';
import { done } from '../../../../../server/http/problem';
import { versioned } from '../../../../../server/http/conditional';
import {
  aboutStudy,
  bringStudyBack,
  changeStudy,
  putStudyAway,
  studyChangeSchema,
} from '../../../../../server/study/studies';

export const GET = endpoint(
  { gives: { schema: studyRead }, says: 'What a study is about, with its version.' },
  async (context) => versioned(await aboutStudy(context.locals.app, param(context, 'study'))),
);

export const PATCH = endpoint(
  {
    says: 'Changes what a study is about.',
    content: studyChangeSchema,
    example: { content: { version: 4, change: { reference: 'a-stock' } } },
  },
  async (context, change) => {
    return versioned(
      await changeStudy(context.locals.app, param(context, 'study'), change, operatorOf(context)),
    );
  },
);

export const DELETE = endpoint(
  {
    says: 'Puts a study away, once its title is given; it can be brought back for 30 days.',
    content: z.strictObject({ title: z.string() }),
    example: { content: { title: 'Clips, three machines' } },
    gives: 204,
  },
  async (context, { title }) => {
    await putStudyAway(context.locals.app, param(context, 'study'), title, operatorOf(context));
    return done();
  },
);

export const POST = endpoint(
  {
    says: 'Brings a deleted study back.',
    content: z.strictObject({ action: z.literal('restore') }),
    example: { content: { action: 'restore' } },
    gives: 204,
  },
  async (context) => {
    await bringStudyBack(context.locals.app, param(context, 'study'));
    return done();
  },
);

export const ALL = onlyMethods('GET', 'PATCH', 'DELETE', 'POST');

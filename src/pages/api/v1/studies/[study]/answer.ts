import * as z from 'zod';
import { endpoint, onlyMethods, param } from '../../../../../server/http/endpoint';
import { json } from '../../../../../server/http/problem';
import { studyAnswer } from '../../../../../server/results/answer';

const answerRead = z.object({
  text: z.string(),
  open: z.string().nullable(),
  isStale: z.boolean(),
});

export const GET = endpoint(
  { says: 'The answer of a study so far, in one or two sentences.', gives: { schema: answerRead } },
  async (context) => json(await studyAnswer(context.locals.app, param(context, 'study'))),
);

export const ALL = onlyMethods('GET');

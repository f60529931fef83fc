import * as z from 'zod';
import { endpoint, onlyMethods, param } from '../../../../../server/http/endpoint';
import { json } from '../../../../../server/http/problem';
import { studyProgress } from '../../../../../server/study/progress';

const count = z.int().min(0);
const progressRead = z.object({
  stations: z.array(z.object({ key: z.string(), title: z.string(), done: count, due: count })),
  steps: z.array(z.object({ key: z.string(), station: z.string(), done: count, due: count })),
  guide: z.record(z.string(), z.boolean()).nullable(),
});

export const GET = endpoint(
  {
    says: 'How far a study has come: what is done and due at each step from its question to its report.',
    gives: { schema: progressRead },
  },
  async (context) => json(await studyProgress(context.locals.app, param(context, 'study'))),
);

export const ALL = onlyMethods('GET');

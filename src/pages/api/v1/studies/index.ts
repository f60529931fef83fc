import { v7 as uuid } from 'uuid';
import { z } from 'zod';
import { INTENTS } from '../../../../core/study';
import { createStudy, listStudies } from '../../../../data';
import { app } from '../../../../server/app';
import { body, endpoint } from '../../../../server/http/endpoint';
import { json } from '../../../../server/http/problem';

const newStudySchema = z.strictObject({
  study_id: z.uuid().default(() => uuid()),
  title: z.string().trim().min(1, 'give the study a title').max(300),
  intent: z.enum(INTENTS),
});

/** All studies. */
export const GET = endpoint(async () => json(await listStudies(app().db)));

/** Makes an empty study. */
export const POST = endpoint(async (context) => {
  const { study_id, title, intent } = await body(context, newStudySchema);
  const name = title
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '');
  await createStudy(app().db, study_id, {
    name: name || 'study',
    title,
    description: null,
    created: new Date().toISOString(),
    intent,
    question: null,
    reference: null,
    smallest_difference: {},
    cost: null,
    scorecard: null,
  });
  return json({ study_id }, 201);
});

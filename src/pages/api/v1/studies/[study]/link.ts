import * as z from 'zod';
import { endpoint, onlyMethods, param } from '../../../../../server/http/endpoint';
import { json } from '../../../../../server/http/problem';
import { linkOfStudy, putOnLink } from '../../../../../server/runs/link';

export const GET = endpoint({ says: 'What the bench link knows in this study.' }, async (context) =>
  json(await linkOfStudy(context.locals.app, param(context, 'study'))),
);

export const POST = endpoint(
  {
    says: 'Puts the study on the link, or takes it off.',
    content: z.strictObject({ is_linked: z.boolean() }),
    example: { content: { is_linked: true } },
  },
  async (context, { is_linked }) => {
    return json(await putOnLink(context.locals.app, param(context, 'study'), is_linked));
  },
);

export const ALL = onlyMethods('GET', 'POST');

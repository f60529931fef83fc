import * as z from 'zod';
import { body, endpoint, onlyMethods, param } from '../../../../../server/http/endpoint';
import { json } from '../../../../../server/http/problem';
import { linkOfStudy, putOnLink } from '../../../../../server/runs/link';

/** What the bench link knows in this study. */
export const GET = endpoint(async (context) => json(await linkOfStudy(param(context, 'study'))));

/** Puts the study on the link, or takes it off. */
export const POST = endpoint(async (context) => {
  const { is_linked } = await body(context, z.strictObject({ is_linked: z.boolean() }));
  return json(await putOnLink(param(context, 'study'), is_linked));
});

export const ALL = onlyMethods('GET', 'POST');

import { z } from 'zod';
import { findStudy, linkState, setLinked } from '../../../../../data';
import { app } from '../../../../../server/app';
import { body, endpoint, param } from '../../../../../server/http/endpoint';
import { json } from '../../../../../server/http/problem';

/** What the bench link knows in this study. */
export const GET = endpoint(async (context) => {
  const study = param(context, 'study');
  await findStudy(app().db, study);
  return json(await linkState(app().db, study));
});

/** Puts the study on the link, or takes it off. */
export const POST = endpoint(async (context) => {
  const study = param(context, 'study');
  const { is_linked } = await body(context, z.strictObject({ is_linked: z.boolean() }));
  await findStudy(app().db, study);
  await setLinked(app().db, study, is_linked);
  return json(await linkState(app().db, study));
});

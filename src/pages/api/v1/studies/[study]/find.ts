import { findStudy } from '../../../../../data';
import { app } from '../../../../../server/app';
import { findByCode } from '../../../../../server/find';
import { endpoint, param } from '../../../../../server/http/endpoint';
import { json, problem } from '../../../../../server/http/problem';

/** The page of what carries a code: a specimen, a print, a place of the plan. */
export const GET = endpoint(async (context) => {
  const study = param(context, 'study');
  const code = context.url.searchParams.get('code')?.trim() ?? '';
  await findStudy(app().db, study);
  const found = await findByCode(study, code);
  return found
    ? json(found)
    : problem(404, `Nothing here carries the code “${code.slice(0, 80)}”.`);
});

import { endpoint, onlyMethods, param, queryOf } from '../../../../../server/http/endpoint';
import { json, problem } from '../../../../../server/http/problem';
import { findByCode } from '../../../../../server/study/find';

export const GET = endpoint(
  {
    says: 'The page of what carries a code: a specimen, a print, a place of the plan.',
    query: { code: 'the text of a sticker' },
  },
  async (context) => {
    const code = queryOf(context, 'code')?.trim() ?? '';
    const found = await findByCode(context.locals.app, param(context, 'study'), code);
    return found
      ? json(found)
      : problem(404, `Nothing here carries the code “${code.slice(0, 80)}”.`);
  },
);

export const ALL = onlyMethods('GET');

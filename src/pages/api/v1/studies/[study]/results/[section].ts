import * as z from 'zod';
import { PART_NAMES } from '../../../../../../core/results';
import { endpoint, onlyMethods, param, queryOf } from '../../../../../../server/http/endpoint';
import { json } from '../../../../../../server/http/problem';
import { resultsOf } from '../../../../../../server/results/results';

const partSchema = z.enum(PART_NAMES);

/** One part of a study's results. */
export const GET = endpoint(async (context) => {
  const part = partSchema.parse(param(context, 'section'));
  const reference = queryOf(context, 'ref');
  return json(await resultsOf({ studyId: param(context, 'study'), reference }, [part]));
});

export const ALL = onlyMethods('GET');

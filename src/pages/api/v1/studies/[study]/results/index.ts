import * as z from 'zod';
import { PART_NAMES } from '../../../../../../core/results';
import { endpoint, onlyMethods, param, queryOf } from '../../../../../../server/http/endpoint';
import { json } from '../../../../../../server/http/problem';
import { resultsOf } from '../../../../../../server/results/results';

const partsSchema = z.array(z.enum(PART_NAMES)).min(1).max(PART_NAMES.length);

/** Which of `?parts=` (with commas between) are not of the study as it stands; they are being made. */
export const GET = endpoint(async (context) => {
  const parts = partsSchema.parse((queryOf(context, 'parts') ?? '').split(','));
  const reference = queryOf(context, 'ref');
  const { stale, revision } = await resultsOf(
    { studyId: param(context, 'study'), reference },
    parts,
  );
  return json({ stale, revision });
});

export const ALL = onlyMethods('GET');

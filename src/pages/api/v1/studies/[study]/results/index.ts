import { resultsStanding } from '../../../../../../server/api/answers';
import * as z from 'zod';
import { PART_NAMES } from '../../../../../../core/answers/results';
import { endpoint, onlyMethods, param, queryOf } from '../../../../../../server/http/endpoint';
import { json } from '../../../../../../server/http/problem';
import { resultsOf } from '../../../../../../server/results/results';

const partsSchema = z.array(z.enum(PART_NAMES)).min(1).max(PART_NAMES.length);

export const GET = endpoint(
  {
    says: 'The parts of the results that are out of date; they are being recalculated.',
    gives: { schema: resultsStanding },
    query: {
      parts: 'names of parts, with commas between',
      ref: "whose column the others are compared with; the study's reference without",
    },
  },
  async (context) => {
    const parts = partsSchema.parse((queryOf(context, 'parts') ?? '').split(','));
    const reference = queryOf(context, 'ref');
    const { stale, revision } = await resultsOf(
      context.locals.app,
      { studyId: param(context, 'study'), reference },
      parts,
    );
    return json({ stale, revision });
  },
);

export const ALL = onlyMethods('GET');

import { resultsRead } from '../../../../../../server/api/answers';
import * as z from 'zod';
import { PART_NAMES } from '../../../../../../core/answers/results';
import { endpoint, onlyMethods, param, queryOf } from '../../../../../../server/http/endpoint';
import { json } from '../../../../../../server/http/problem';
import { resultsOf } from '../../../../../../server/results/results';

const partSchema = z.enum(PART_NAMES);

export const GET = endpoint(
  {
    says: 'One part of the results of a study.',
    gives: { schema: resultsRead },
    query: { ref: "whose column the others are compared with; the study's reference without" },
  },
  async (context) => {
    const part = partSchema.parse(param(context, 'section'));
    const reference = queryOf(context, 'ref');
    return json(
      await resultsOf(context.locals.app, { studyId: param(context, 'study'), reference }, [part]),
    );
  },
);

export const ALL = onlyMethods('GET');

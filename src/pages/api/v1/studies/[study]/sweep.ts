import { endpoint, onlyMethods, operatorOf, param } from '../../../../../server/http/endpoint';
import { json } from '../../../../../server/http/problem';
import { setSweepUp, sweepSetUpSchema } from '../../../../../server/study/sweep';

export const POST = endpoint(
  {
    says: 'Sets the steps of a sweep up from one contender.',
    content: sweepSetUpSchema,
    example: {
      content: {
        contender_id: 'a-stock',
        setting: 'speed_outer_mm_s',
        unit: 'mm/s',
        values: [120, 160, 200],
      },
    },
    gives: 201,
  },
  async (context, asked) => {
    return json(
      await setSweepUp(context.locals.app, param(context, 'study'), asked, operatorOf(context)),
      201,
    );
  },
);

export const ALL = onlyMethods('POST');

import * as z from 'zod';
import {
  endpoint,
  onlyMethods,
  operatorOf,
  param,
  uuidParam,
} from '../../../../../../server/http/endpoint';
import { json } from '../../../../../../server/http/problem';
import { restoreToStudy } from '../../../../../../server/rows';

export const POST = endpoint(
  {
    says: 'Restores what was deleted, as it was.',
    content: z.strictObject({ action: z.literal('restore') }),
    example: { content: { action: 'restore' } },
  },
  async (context) => {
    const study = param(context, 'study');
    return json(
      await restoreToStudy(
        context.locals.app,
        study,
        uuidParam(context, 'deletion'),
        operatorOf(context),
      ),
    );
  },
);

export const ALL = onlyMethods('POST');

import { endpoint, onlyMethods, operatorOf, param } from '../../../../../../server/http/endpoint';
import { json } from '../../../../../../server/http/problem';
import { addSchema, addToLineUp } from '../../../../../../server/line-up/add';

export const POST = endpoint(
  {
    says: 'Adds a machine, a tuned profile, a part, a material or an instrument to the line-up.',
    content: addSchema,
    example: { content: { add: 'tuned', contender_id: 'a-stock' } },
    gives: 201,
  },
  async (context, asked) => {
    return json(
      await addToLineUp(context.locals.app, param(context, 'study'), asked, operatorOf(context)),
      201,
    );
  },
);

export const ALL = onlyMethods('POST');

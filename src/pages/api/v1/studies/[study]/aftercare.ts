import { endpoint, onlyMethods, operatorOf, param } from '../../../../../server/http/endpoint';
import { json } from '../../../../../server/http/problem';
import { aftercareSchema, keepAftercare } from '../../../../../server/inspect/aftercare';

export const POST = endpoint(
  {
    says: 'Saves how long post-processing of a specimen took.',
    content: aftercareSchema,
    example: { content: { specimen_id: 'K7-004', kind: 'support', minutes: 4 } },
  },
  async (context, content) => {
    return json(
      await keepAftercare(
        context.locals.app,
        param(context, 'study'),
        content,
        operatorOf(context),
      ),
    );
  },
);

export const ALL = onlyMethods('POST');

import { endpoint, onlyMethods, operatorOf, param } from '../../../../../../server/http/endpoint';
import { json } from '../../../../../../server/http/problem';
import { listAnswer } from '../../../../../../server/http/list';
import {
  deleteFromStudy,
  deletionSchema,
  deletionsOf,
  previewDeletion,
} from '../../../../../../server/rows';

const example = { content: { table: 'prints' as const, key: ['P-017'] } };

export const GET = endpoint(
  { says: 'What was deleted from a study and can be restored.', isList: true },
  async (context) =>
    listAnswer(
      context,
      await deletionsOf(context.locals.app, param(context, 'study')),
      (one) => one.deletion_id,
    ),
);

export const PUT = endpoint(
  {
    says: 'What would be deleted with a print, specimen, incident or photo; nothing is changed.',
    content: deletionSchema,
    example,
  },
  async (context, asked) =>
    json(await previewDeletion(context.locals.app, param(context, 'study'), asked)),
);

export const POST = endpoint(
  {
    says:
      'Deletes a print, specimen, incident or photo with everything that belongs to it; it can ' +
      'be restored for 30 days.',
    content: deletionSchema,
    example,
    gives: 201,
  },
  async (context, asked) =>
    json(
      await deleteFromStudy(
        context.locals.app,
        param(context, 'study'),
        asked,
        operatorOf(context),
      ),
      201,
    ),
);

export const ALL = onlyMethods('GET', 'PUT', 'POST');

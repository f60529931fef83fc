import { endpoint, onlyMethods, operatorOf, param } from '../../../../../../server/http/endpoint';
import { json } from '../../../../../../server/http/problem';
import {
  addPanel,
  panelDraftSchema,
  panelExample,
  panelLines,
} from '../../../../../../server/panels';

export const GET = endpoint(
  { says: 'The blind panels of a study, and how far each has come.' },
  async (context) => json(await panelLines(context.locals.app, param(context, 'study'))),
);

export const POST = endpoint(
  {
    says: 'Plans a blind panel.',
    content: panelDraftSchema,
    example: { content: panelExample },
    gives: 201,
  },
  async (context, draft) => {
    return json(
      await addPanel(context.locals.app, param(context, 'study'), draft, operatorOf(context)),
      201,
    );
  },
);

export const ALL = onlyMethods('GET', 'POST');

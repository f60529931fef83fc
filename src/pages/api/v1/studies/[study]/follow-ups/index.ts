import { endpoint, onlyMethods, operatorOf, param } from '../../../../../../server/http/endpoint';
import { json } from '../../../../../../server/http/problem';
import {
  addFollowUp,
  followUpsPage,
  followUpSchema,
} from '../../../../../../server/runs/follow-ups';

export const GET = endpoint(
  { says: 'The causes that were followed, with what really differed from print to print.' },
  async (context) => json(await followUpsPage(context.locals.app, param(context, 'study'))),
);

export const POST = endpoint(
  {
    says: 'Adds a follow-up, and books the incident on the cause that was found.',
    content: followUpSchema,
    example: {
      content: {
        follow_up: {
          follow_up_id: 'f-1',
          print_before: 'P-001',
          print_after: 'P-014',
          suspect: 'setting',
          changed: 'bed 5 °C warmer',
          outcome: 'gone',
        },
      },
    },
    gives: 201,
  },
  async (context, asked) => {
    return json(
      await addFollowUp(context.locals.app, param(context, 'study'), asked, operatorOf(context)),
      201,
    );
  },
);

export const ALL = onlyMethods('GET', 'POST');

import { endpoint, onlyMethods, operatorOf, param } from '../../../../../../server/http/endpoint';
import { json } from '../../../../../../server/http/problem';
import { moveReadings, moveSchema } from '../../../../../../server/measure/move-readings';

export const POST = endpoint(
  {
    says:
      'Moves readings to the specimen that was really measured: the old ones stay in the study, ' +
      'marked as superseded.',
    content: moveSchema,
    example: {
      content: {
        reading_ids: ['0190c1de-8c52-7b6e-9f5a-2f8b1a4e6c70'],
        to: 'K7-005',
        at: '2026-03-02T09:20:00+01:00',
      },
    },
    gives: 201,
  },
  async (context, asked) =>
    json(
      await moveReadings(context.locals.app, param(context, 'study'), asked, operatorOf(context)),
      201,
    ),
);

export const ALL = onlyMethods('POST');

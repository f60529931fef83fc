import * as z from 'zod';
import { time } from '../../../../../../core/model/study';
import { endpoint, onlyMethods, operatorOf, param } from '../../../../../../server/http/endpoint';
import { json } from '../../../../../../server/http/problem';
import { takeBackReading } from '../../../../../../server/measure/readings';

const takenBackSchema = z.strictObject({ at: time() });

export const DELETE = endpoint(
  {
    says: 'Withdraws a reading: it stays stored and no longer counts.',
    content: takenBackSchema,
    example: { content: { at: '2026-03-02T09:13:00+01:00' } },
  },
  async (context, { at }) => {
    const id = z.uuid().parse(param(context, 'reading'));
    return json(
      await takeBackReading(
        context.locals.app,
        param(context, 'study'),
        id,
        at,
        operatorOf(context),
      ),
    );
  },
);

export const ALL = onlyMethods('DELETE');

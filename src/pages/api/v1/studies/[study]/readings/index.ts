import { readingsRead, readingKept } from '../../../../../../server/api/answers';
import { endpoint, onlyMethods, operatorOf, param } from '../../../../../../server/http/endpoint';
import { listAnswer } from '../../../../../../server/http/list';
import { json } from '../../../../../../server/http/problem';
import { addReadings, readingSchema, readingsOf } from '../../../../../../server/measure/readings';

export const GET = endpoint(
  { gives: { schema: readingsRead }, isList: true, says: 'The readings of a study that count.' },
  async (context) =>
    listAnswer(
      context,
      await readingsOf(context.locals.app, param(context, 'study')),
      (row) => row.reading_id,
    ),
);

export const POST = endpoint(
  {
    says: 'Saves a reading; sent again with the same id, it is saved once.',
    gives: { status: 201, schema: readingKept },
    content: readingSchema,
    example: {
      content: {
        reading_id: '0190c1de-8c52-7b6e-9f5a-2f8b1a4e6c70',
        specimen_id: 'K7-004',
        dimension_id: 'width',
        trial: 1,
        value_mm: 19.98,
        instrument_id: 'cal-1',
        operator: 'TS',
        at: '2026-03-02T09:12:00+01:00',
      },
    },
  },
  async (context, reading) => {
    const [kept] = await addReadings(
      context.locals.app,
      param(context, 'study'),
      [reading],
      operatorOf(context),
    );
    return json(kept, 201);
  },
);

export const ALL = onlyMethods('GET', 'POST');

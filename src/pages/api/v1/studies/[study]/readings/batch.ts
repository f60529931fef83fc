import { readingsKept } from '../../../../../../server/api/answers';
import * as z from 'zod';
import { endpoint, onlyMethods, operatorOf, param } from '../../../../../../server/http/endpoint';
import { json } from '../../../../../../server/http/problem';
import { addReadings, readingSchema } from '../../../../../../server/measure/readings';

const batchSchema = z.strictObject({ readings: z.array(readingSchema).min(1).max(3000) });

export const POST = endpoint(
  {
    says: 'Saves many readings, all or none; sent again with the same ids, they are saved once.',
    gives: { status: 201, schema: readingsKept },
    content: batchSchema,
    example: {
      content: {
        readings: [
          {
            reading_id: '0190c1de-8c52-7b6e-9f5a-2f8b1a4e6c70',
            specimen_id: 'K7-004',
            dimension_id: 'width',
            trial: 1,
            value_mm: 19.98,
            instrument_id: 'cal-1',
            operator: 'TS',
            at: '2026-03-02T09:12:00+01:00',
          },
        ],
      },
    },
  },
  async (context, { readings }) => {
    const kept = await addReadings(
      context.locals.app,
      param(context, 'study'),
      readings,
      operatorOf(context),
    );
    return json({ kept: kept.length }, 201);
  },
);

export const ALL = onlyMethods('POST');

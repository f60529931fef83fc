import { z } from 'zod';
import { appendReadings, brokenReferences, RefusedError } from '../../../../../../data';
import { app } from '../../../../../../server/app';
import { body, endpoint, param } from '../../../../../../server/http/endpoint';
import { json } from '../../../../../../server/http/problem';
import { readingSchema } from '../../../../../../server/readings';

const batchSchema = z.strictObject({ readings: z.array(readingSchema).min(1).max(3000) });

/** Keeps many readings, all of them or none; sent again with the same ids, they are kept once. */
export const POST = endpoint(async (context) => {
  const study = param(context, 'study');
  const { readings } = await body(context, batchSchema);
  const seen = new Set<string>();
  for (const reading of readings) {
    const key = `${reading.specimen_id}/${reading.dimension_id}`;
    if (seen.has(key)) continue;
    seen.add(key);
    const [broken] = await brokenReferences(app().db, study, 'readings', reading);
    if (broken) {
      throw new RefusedError(`${broken.column} ${reading.dimension_id} ${broken.message}.`);
    }
  }
  const rows = readings.map((reading) => ({ ...reading, superseded_at: null }));
  return json({ kept: (await appendReadings(app().db, study, rows)).length }, 201);
});

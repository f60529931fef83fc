import {
  appendReading,
  brokenReferences,
  listReadings,
  RefusedError,
} from '../../../../../../data';
import { app } from '../../../../../../server/app';
import { body, endpoint, param } from '../../../../../../server/http/endpoint';
import { json } from '../../../../../../server/http/problem';
import { readingSchema } from '../../../../../../server/readings';

/** The readings of a study that count. */
export const GET = endpoint(async (context) =>
  json(await listReadings(app().db, param(context, 'study'))),
);

/** Keeps a reading; sent again with the same id, it is kept once. */
export const POST = endpoint(async (context) => {
  const study = param(context, 'study');
  const reading = await body(context, readingSchema);
  const [broken] = await brokenReferences(app().db, study, 'readings', reading);
  if (broken) {
    throw new RefusedError(`${broken.column} ${reading.dimension_id} ${broken.message}.`);
  }
  return json(await appendReading(app().db, study, { ...reading, superseded_at: null }), 201);
});

import { z } from 'zod';
import { supersedeReading } from '../../../../../../data';
import { app } from '../../../../../../server/app';
import { body, endpoint, param } from '../../../../../../server/http/endpoint';
import { json } from '../../../../../../server/http/problem';

const takenBackSchema = z.strictObject({ at: z.iso.datetime({ offset: true }) });

/** Takes a reading back: it is kept, and no longer counts. */
export const DELETE = endpoint(async (context) => {
  const { at } = await body(context, takenBackSchema);
  const id = z.uuid().parse(param(context, 'reading'));
  return json(await supersedeReading(app().db, param(context, 'study'), id, at));
});

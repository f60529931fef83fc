import * as z from 'zod';
import { TABLES } from '../../../../../../core/study';
import {
  body,
  endpoint,
  onlyMethods,
  operatorOf,
  param,
} from '../../../../../../server/http/endpoint';
import { json } from '../../../../../../server/http/problem';
import { endPrintOf } from '../../../../../../server/runs/end';

const endedSchema = z.strictObject({
  print: TABLES.prints.row.strict(),
  specimens: z.array(TABLES.specimens.row.strict()).max(500),
});

/** Puts down how a print ended, with the parts that came off the plate. */
export const POST = endpoint(async (context) => {
  const { print, specimens } = await body(context, endedSchema);
  const who = operatorOf(context);
  return json(await endPrintOf(param(context, 'study'), print, specimens, who), 201);
});

export const ALL = onlyMethods('POST');

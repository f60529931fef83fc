import { z } from 'zod';
import { retireDimension } from '../../../../../../../../server/artefacts';
import { body, endpoint, operatorOf, param } from '../../../../../../../../server/http/endpoint';
import { json } from '../../../../../../../../server/http/problem';

const reasonSchema = z.strictObject({ reason: z.string().max(500).nullable() });

/** Takes a dimension out; one that was read is kept as retired. */
export const DELETE = endpoint(async (context) => {
  const { reason } = await body(context, reasonSchema);
  const [study, artefact, dimension] = ['study', 'artefact', 'dimension'].map((name) =>
    param(context, name),
  ) as [string, string, string];
  return json(await retireDimension(study, artefact, dimension, reason, operatorOf(context)));
});

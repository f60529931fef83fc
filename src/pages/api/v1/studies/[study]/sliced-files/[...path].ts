import * as z from 'zod';
import {
  body,
  endpoint,
  onlyMethods,
  operatorOf,
  param,
} from '../../../../../../server/http/endpoint';
import { done, json } from '../../../../../../server/http/problem';
import {
  confirmPurpose,
  readAgain,
  slicedFileOf,
  takeOutFile,
} from '../../../../../../server/sliced-files';

const changeSchema = z.union([
  z.strictObject({ read: z.literal('again') }),
  z.strictObject({
    contender_id: z.string().min(1),
    artefact_id: z.string().min(1),
    link_prints: z.boolean().default(false),
  }),
]);

/** What a sliced file says. */
export const GET = endpoint(async (context) =>
  json(await slicedFileOf(param(context, 'study'), param(context, 'path'))),
);

/** Says what a file is for, or has it read again. */
export const PATCH = endpoint(async (context) => {
  const study = param(context, 'study');
  const path = param(context, 'path');
  const change = await body(context, changeSchema);
  return json(
    'read' in change
      ? await readAgain(study, path)
      : await confirmPurpose(study, path, change, operatorOf(context)),
  );
});

/** Takes a file out of the study. */
export const DELETE = endpoint(async (context) => {
  await takeOutFile(param(context, 'study'), param(context, 'path'), operatorOf(context));
  return done();
});

export const ALL = onlyMethods('GET', 'PATCH', 'DELETE');

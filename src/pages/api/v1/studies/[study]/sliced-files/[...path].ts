import * as z from 'zod';
import { endpoint, onlyMethods, operatorOf, param } from '../../../../../../server/http/endpoint';
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

export const GET = endpoint({ says: 'The facts read from a sliced file.' }, async (context) =>
  json(await slicedFileOf(context.locals.app, param(context, 'study'), param(context, 'path'))),
);

export const PATCH = endpoint(
  {
    says: 'Sets what a file is for, or reads it again.',
    content: changeSchema,
    example: { content: { contender_id: 'a-stock', artefact_id: 'clip', link_prints: true } },
  },
  async (context, change) => {
    const study = param(context, 'study');
    const path = param(context, 'path');
    return json(
      'read' in change
        ? await readAgain(context.locals.app, study, path)
        : await confirmPurpose(context.locals.app, study, path, change, operatorOf(context)),
    );
  },
);

export const DELETE = endpoint(
  { says: 'Removes a file from the study.', gives: 204 },
  async (context) => {
    await takeOutFile(
      context.locals.app,
      param(context, 'study'),
      param(context, 'path'),
      operatorOf(context),
    );
    return done();
  },
);

export const ALL = onlyMethods('GET', 'PATCH', 'DELETE');

import * as z from 'zod';
import { endpoint, onlyMethods, operatorOf, param } from '../../../../../../server/http/endpoint';
import { listAnswer } from '../../../../../../server/http/list';
import { json } from '../../../../../../server/http/problem';
import {
  confirmPurposes,
  SLICED_UPLOADS,
  slicedFilesOf,
} from '../../../../../../server/sliced-files';
import { announcedSchema, announceFile } from '../../../../../../server/uploads';

export const GET = endpoint(
  { isList: true, says: 'All sliced files of a study.' },
  async (context) =>
    listAnswer(
      context,
      await slicedFilesOf(context.locals.app, param(context, 'study')),
      (file) => file.path,
    ),
);

export const POST = endpoint(
  {
    says: 'Announces a file: says whether it is there already, else from where on its bytes are wanted.',
    content: announcedSchema,
    example: {
      content: {
        name: 'clip.gcode',
        bytes: 48211,
        sha256: '9f86d081884c7d659a2feaa0c55ad015a3bf4f1b2b0b822cd15d6c15b0f00a08',
      },
    },
  },
  async (context, file) => {
    const who = operatorOf(context);
    return json(
      await announceFile(context.locals.app, SLICED_UPLOADS, param(context, 'study'), file, who),
    );
  },
);

const confirmedSchema = z
  .array(
    z.strictObject({
      path: z.string().min(1).max(1000),
      contender_id: z.string().min(1),
      artefact_id: z.string().min(1),
      link_prints: z.boolean().default(false),
    }),
  )
  .min(1, 'name a file')
  .max(500);

export const PATCH = endpoint(
  {
    says: 'Sets what several files are for, all of them or none.',
    content: confirmedSchema,
    example: {
      content: [
        {
          path: 'sliced/clip.gcode',
          contender_id: 'a-stock',
          artefact_id: 'clip',
          link_prints: true,
        },
      ],
    },
  },
  async (context, files) =>
    json(
      await confirmPurposes(
        context.locals.app,
        param(context, 'study'),
        files,
        operatorOf(context),
      ),
    ),
);

export const ALL = onlyMethods('GET', 'POST', 'PATCH');

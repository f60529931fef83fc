import { endpoint, onlyMethods, operatorOf, param } from '../../../../../../server/http/endpoint';
import { listAnswer } from '../../../../../../server/http/list';
import { json } from '../../../../../../server/http/problem';
import { SLICED_UPLOADS, slicedFilesOf } from '../../../../../../server/sliced-files';
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

export const ALL = onlyMethods('GET', 'POST');

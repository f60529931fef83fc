import { endpoint, onlyMethods, operatorOf, param } from '../../../../../../server/http/endpoint';
import { json } from '../../../../../../server/http/problem';
import { fromFilesSchema, setUpFromFiles } from '../../../../../../server/line-up/from-files';

export const POST = endpoint(
  {
    says: 'Sets the line-up up from sliced files that are here, each with what it is.',
    content: fromFilesSchema,
    example: {
      content: {
        material: 'PLA',
        files: [
          {
            path: 'sliced/clip.gcode',
            machine: 'Auklet 19',
            profile: 'Stock',
            kind: 'stock',
            part: 'Clip',
            settings: {},
          },
        ],
      },
    },
    gives: 201,
  },
  async (context, asked) => {
    return json(
      await setUpFromFiles(context.locals.app, param(context, 'study'), asked, operatorOf(context)),
      201,
    );
  },
);

export const ALL = onlyMethods('POST');

import * as z from 'zod';
import { endpoint, onlyMethods } from '../../../server/http/endpoint';
import { json } from '../../../server/http/problem';
import { bringDemoBack, removeDemo } from '../../../server/study/studies';

const counted = z.object({ studies: z.int() });

export const DELETE = endpoint(
  {
    says: 'Deletes the studies of the demo; they can be brought back for 30 days.',
    gives: { schema: counted },
  },
  async (context) => json({ studies: await removeDemo(context.locals.app) }),
);

export const POST = endpoint(
  { says: 'Brings back the deleted studies of the demo.', gives: { schema: counted } },
  async (context) => json({ studies: await bringDemoBack(context.locals.app) }),
);

export const ALL = onlyMethods('DELETE', 'POST');

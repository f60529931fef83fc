import {
  body,
  endpoint,
  onlyMethods,
  operatorOf,
  param,
} from '../../../../../../server/http/endpoint';
import { json } from '../../../../../../server/http/problem';
import { SLICED_UPLOADS, slicedFilesOf } from '../../../../../../server/sliced-files';
import { announcedSchema, announceFile } from '../../../../../../server/uploads';

/** All sliced files of a study. */
export const GET = endpoint(async (context) => json(await slicedFilesOf(param(context, 'study'))));

/** Announces a file: says whether it is there already, else from where on its bytes are wanted. */
export const POST = endpoint(async (context) => {
  const file = await body(context, announcedSchema);
  const who = operatorOf(context);
  return json(await announceFile(SLICED_UPLOADS, param(context, 'study'), file, who));
});

export const ALL = onlyMethods('GET', 'POST');

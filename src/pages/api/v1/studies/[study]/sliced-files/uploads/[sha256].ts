import {
  endpoint,
  onlyMethods,
  operatorOf,
  param,
  streamOf,
} from '../../../../../../../server/http/endpoint';
import { done, json } from '../../../../../../../server/http/problem';
import { SLICED_UPLOADS } from '../../../../../../../server/sliced-files';
import { digestOf, giveUpUpload, offsetOf, takeBytes } from '../../../../../../../server/uploads';

/** Takes the next bytes of an announced file, from `?offset=` on. */
export const PUT = endpoint(async (context) => {
  const offset = offsetOf(context, SLICED_UPLOADS.largest);
  const [study, sha256] = [param(context, 'study'), digestOf(context)];
  const content = streamOf(context.request);
  return json(await takeBytes(SLICED_UPLOADS, study, sha256, offset, content, operatorOf(context)));
});

/** Gives an upload up. */
export const DELETE = endpoint(async (context) => {
  await giveUpUpload(param(context, 'study'), digestOf(context));
  return done();
});

export const ALL = onlyMethods('PUT', 'DELETE');

import {
  endpoint,
  onlyMethods,
  operatorOf,
  param,
  streamOf,
} from '../../../../../../../server/http/endpoint';
import { done, json } from '../../../../../../../server/http/problem';
import { PHOTO_UPLOADS } from '../../../../../../../server/photos';
import { digestOf, giveUpUpload, offsetOf, takeBytes } from '../../../../../../../server/uploads';

/** Takes the next bytes of an announced photo, from `?offset=` on. */
export const PUT = endpoint(async (context) => {
  const offset = offsetOf(context, PHOTO_UPLOADS.largest);
  const [study, sha256] = [param(context, 'study'), digestOf(context)];
  const content = streamOf(context.request);
  return json(await takeBytes(PHOTO_UPLOADS, study, sha256, offset, content, operatorOf(context)));
});

/** Gives an upload up. */
export const DELETE = endpoint(async (context) => {
  await giveUpUpload(param(context, 'study'), digestOf(context));
  return done();
});

export const ALL = onlyMethods('PUT', 'DELETE');

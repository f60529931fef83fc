import {
  endpoint,
  onlyMethods,
  operatorOf,
  param,
  queryOf,
  streamOf,
} from '../../../../../../../server/http/endpoint';
import { done, json, RequestError } from '../../../../../../../server/http/problem';
import { giveUpUpload, LARGEST_SLICED, takeBytes } from '../../../../../../../server/sliced-files';

/** Takes the next bytes of an announced file, from `?offset=` on. */
export const PUT = endpoint(async (context) => {
  const { request } = context;
  const offset = Number(queryOf(context, 'offset'));
  if (!Number.isSafeInteger(offset) || offset < 0) {
    throw new RequestError(400, 'offset must say how many bytes have arrived.');
  }
  if (Number(request.headers.get('content-length') ?? 0) > LARGEST_SLICED) {
    throw new RequestError(413, 'The file is over 500 MiB.');
  }
  const [study, sha256] = [param(context, 'study'), param(context, 'sha256')];
  return json(await takeBytes(study, sha256, offset, streamOf(request), operatorOf(context)));
});

/** Gives an upload up. */
export const DELETE = endpoint(async (context) => {
  await giveUpUpload(param(context, 'study'), param(context, 'sha256'));
  return done();
});

export const ALL = onlyMethods('PUT', 'DELETE');

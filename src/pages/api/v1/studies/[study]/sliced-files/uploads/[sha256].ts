import type { APIContext } from 'astro';
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

/** The digest that an upload is known by. */
function digestOf(context: APIContext): string {
  const sha256 = param(context, 'sha256');
  if (/^[0-9a-f]{64}$/.test(sha256)) return sha256;
  throw new RequestError(400, 'An upload is known by its SHA-256 in 64 hexadecimal digits.');
}

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
  const [study, sha256] = [param(context, 'study'), digestOf(context)];
  return json(await takeBytes(study, sha256, offset, streamOf(request), operatorOf(context)));
});

/** Gives an upload up. */
export const DELETE = endpoint(async (context) => {
  await giveUpUpload(param(context, 'study'), digestOf(context));
  return done();
});

export const ALL = onlyMethods('PUT', 'DELETE');

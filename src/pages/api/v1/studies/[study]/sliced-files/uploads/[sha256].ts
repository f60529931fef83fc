import { Readable } from 'node:stream';
import type { ReadableStream } from 'node:stream/web';
import { dropUpload, findStudy } from '../../../../../../../data';
import { app } from '../../../../../../../server/app';
import { endpoint, operatorOf, param } from '../../../../../../../server/http/endpoint';
import { json, RequestError } from '../../../../../../../server/http/problem';
import { LARGEST_SLICED, takeBytes } from '../../../../../../../server/sliced-files';

/** Takes the next bytes of an announced file, from `?offset=` on. */
export const PUT = endpoint(async (context) => {
  const { request, url } = context;
  const study = param(context, 'study');
  const offset = Number(url.searchParams.get('offset'));
  if (!Number.isSafeInteger(offset) || offset < 0) {
    throw new RequestError(400, 'offset must say how many bytes have arrived.');
  }
  if (Number(request.headers.get('content-length') ?? 0) > LARGEST_SLICED) {
    throw new RequestError(413, 'The file is over 500 MiB.');
  }
  if (!request.body) throw new RequestError(400, 'Send the bytes as the content of the request.');
  await findStudy(app().db, study);
  const content = Readable.fromWeb(request.body as unknown as ReadableStream);
  return json(
    await takeBytes(study, param(context, 'sha256'), offset, content, operatorOf(context)),
  );
});

/** Gives an upload up. */
export const DELETE = endpoint(async (context) => {
  await dropUpload(app().db, param(context, 'study'), param(context, 'sha256'));
  return new Response(null, { status: 204 });
});

import type { APIRoute } from 'astro';
import { endpoint, operatorOf, param, streamOf } from '../http/endpoint';
import { done, json } from '../http/problem';
import { digestOf, offsetOf } from './doors';
import { giveUpUpload, takeBytes, type UploadKind } from './uploads';

/** What an address takes at which the bytes of announced files of a kind arrive. */
export const uploadEndpoints = (kind: UploadKind): { PUT: APIRoute; DELETE: APIRoute } => ({
  /** Takes the next bytes of an announced file, from `?offset=` on. */
  PUT: endpoint(async (context) => {
    const offset = offsetOf(context, kind.largest);
    const [study, sha256] = [param(context, 'study'), digestOf(context)];
    const content = streamOf(context.request);
    return json(await takeBytes(kind, study, sha256, offset, content, operatorOf(context)));
  }),
  /** Gives an upload up. */
  DELETE: endpoint(async (context) => {
    await giveUpUpload(param(context, 'study'), digestOf(context));
    return done();
  }),
});

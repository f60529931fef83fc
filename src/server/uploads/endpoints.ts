import { streamOf } from '../http/content';
import { endpoint, operatorOf, param } from '../http/endpoint';
import type { Described } from '../http/operation';
import { done, json } from '../http/problem';
import { digestOf, offsetOf } from './doors';
import { giveUpUpload, takeBytes, type UploadKind } from './uploads';

/** What an address takes at which the bytes of announced files of a kind arrive. */
export const uploadEndpoints = (kind: UploadKind): { PUT: Described; DELETE: Described } => ({
  PUT: endpoint(
    {
      says: 'Takes the next bytes of an announced file.',
      file: 'application/octet-stream',
      query: { offset: 'so many bytes have arrived before' },
    },
    async (context) => {
      const offset = offsetOf(context, kind.largest);
      const [study, sha256] = [param(context, 'study'), digestOf(context)];
      const content = streamOf(context.request);
      return json(
        await takeBytes(
          context.locals.app,
          kind,
          study,
          sha256,
          offset,
          content,
          operatorOf(context),
        ),
      );
    },
  ),
  DELETE: endpoint({ says: 'Gives an upload up.', gives: 204 }, async (context) => {
    await giveUpUpload(context.locals.app, param(context, 'study'), digestOf(context));
    return done();
  }),
});

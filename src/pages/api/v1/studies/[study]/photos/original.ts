import {
  endpoint,
  fileAnswer,
  onlyMethods,
  param,
  queryOf,
} from '../../../../../../server/http/endpoint';
import { problem } from '../../../../../../server/http/problem';
import { openOriginal } from '../../../../../../server/photos';

export const GET = endpoint(
  {
    says: 'A photo as it came, to be saved: bytes, whatever they are.',
    query: { path: 'the path of the photo in the study' },
    gives: { type: 'application/octet-stream' },
  },
  async (context) => {
    const file = await openOriginal(
      context.locals.app,
      param(context, 'study'),
      queryOf(context, 'path') ?? '',
    );
    if (!file) return problem(404, 'There is no such photo.');
    return fileAnswer(file.content, {
      'content-type': 'application/octet-stream',
      'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(file.name)}`,
      'content-security-policy': "default-src 'none'",
    });
  },
);

export const ALL = onlyMethods('GET');

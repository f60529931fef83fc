import { endpoint, onlyMethods, param, uuidParam } from '../../../../../../server/http/endpoint';
import { pictureFor } from '../../../../../../server/panels';

export const GET = endpoint(
  {
    says: 'A picture of a question, to the judge who is asked it.',
    gives: { type: 'image/jpeg' },
  },
  async (context) => {
    const bytes = await pictureFor(
      context.locals.app,
      param(context, 'link'),
      context.request.headers,
      uuidParam(context, 'picture'),
    );
    return new Response(bytes as BodyInit, {
      headers: {
        'content-type': 'image/jpeg',
        'content-length': String(bytes.length),
        'cache-control': 'no-store',
        'content-security-policy': "default-src 'none'",
      },
    });
  },
);

export const ALL = onlyMethods('GET');

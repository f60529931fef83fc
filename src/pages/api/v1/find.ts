import { isUuid } from '../../../server/workshop/things';
import { endpoint, onlyMethods, queryOf } from '../../../server/http/endpoint';
import { json, RequestError } from '../../../server/http/problem';
import { findByText } from '../../../server/workshop/find';

const LONGEST = 200;

export const GET = endpoint(
  {
    says: 'What carries a text in its name or code.',
    query: { q: 'the text, up to 200 characters', study: 'a study that comes first' },
  },
  async (context) => {
    const text = queryOf(context, 'q')?.trim() ?? '';
    if (text === '') return json([]);
    if (text.length > LONGEST) throw new RequestError(422, 'Type at most 200 characters.');
    const study = queryOf(context, 'study');
    return json(
      await findByText(context.locals.app, text, study !== null && isUuid(study) ? study : null),
    );
  },
);

export const ALL = onlyMethods('GET');

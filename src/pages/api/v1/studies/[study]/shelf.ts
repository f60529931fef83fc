import { endpoint, onlyMethods, param } from '../../../../../server/http/endpoint';
import { done } from '../../../../../server/http/problem';
import { setShelf, shelfSchema } from '../../../../../server/study/studies';

export const PUT = endpoint(
  {
    says: 'Archives a study or brings it back, and sets its labels.',
    content: shelfSchema,
    example: { content: { labels: ['clips'] } },
    gives: 204,
  },
  async (context, shelf) => {
    await setShelf(context.locals.app, param(context, 'study'), shelf);
    return done();
  },
);

export const ALL = onlyMethods('PUT');

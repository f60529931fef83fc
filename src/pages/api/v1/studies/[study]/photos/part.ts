import {
  endpoint,
  fileAnswer,
  onlyMethods,
  param,
  queryOf,
} from '../../../../../../server/http/endpoint';
import { problem, RequestError } from '../../../../../../server/http/problem';
import { openPart } from '../../../../../../server/photos';

export const GET = endpoint(
  {
    says: 'A picture that was made of a photo: all of it in a size, or a tile of its view.',
    query: {
      column: 'the column of a tile of its view',
      row: 'the row of that tile',
      level: 'so many halvings, 0 for the whole',
      path: 'the path of the photo in the study',
    },
    gives: { type: 'image/jpeg' },
  },
  async (context) => {
    const whole = (name: string): number => {
      const value = Number(queryOf(context, name) ?? 0);
      if (Number.isInteger(value) && value >= 0 && value < 1e5) return value;
      throw new RequestError(400, `?${name}= must be a whole number.`);
    };
    const part = await openPart(
      context.locals.app,
      param(context, 'study'),
      queryOf(context, 'path') ?? '',
      {
        kind: queryOf(context, 'column') === null ? 'level' : 'tile',
        level: whole('level'),
        column: whole('column'),
        row: whole('row'),
      },
    );
    if (!part) return problem(404, 'There is no such part of a photo.');
    // Addresses carry the photo's version and the edition, so that what is laid anew has another one.
    return fileAnswer(part.content, {
      'content-type': 'image/jpeg',
      'cache-control': 'private, max-age=86400',
      'content-security-policy': "default-src 'none'",
    });
  },
);

export const ALL = onlyMethods('GET');

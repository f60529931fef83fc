import { endpoint, onlyMethods, param, queryOf } from '../../../../../server/http/endpoint';
import { json, RequestError } from '../../../../../server/http/problem';
import { evidenceOfFigure } from '../../../../../server/results/evidence';

export const GET = endpoint(
  {
    says: 'What a figure was computed from.',
    query: {
      figure: 'the address of the figure, section:who:key',
      ref: "whose column the others are compared with; the study's reference without",
      revision: 'the revision that the figure was seen at',
    },
  },
  async (context) => {
    const seen = queryOf(context, 'revision');
    if (seen !== null && !/^\d{1,15}$/.test(seen)) {
      throw new RequestError(400, 'revision must be a whole number.');
    }
    return json(
      await evidenceOfFigure(
        context.locals.app,
        param(context, 'study'),
        queryOf(context, 'figure') ?? '',
        queryOf(context, 'ref'),
        seen === null ? null : Number(seen),
      ),
    );
  },
);

export const ALL = onlyMethods('GET');

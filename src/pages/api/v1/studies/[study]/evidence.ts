import { endpoint, onlyMethods, param, queryOf } from '../../../../../server/http/endpoint';
import { json, RequestError } from '../../../../../server/http/problem';
import { evidenceOfFigure } from '../../../../../server/results/evidence';

/** What a figure was computed from; `?revision=` is that of the figure as it is seen. */
export const GET = endpoint(async (context) => {
  const seen = queryOf(context, 'revision');
  if (seen !== null && !/^\d{1,15}$/.test(seen)) {
    throw new RequestError(400, 'revision must be a whole number.');
  }
  return json(
    await evidenceOfFigure(
      param(context, 'study'),
      queryOf(context, 'figure') ?? '',
      queryOf(context, 'ref'),
      seen === null ? null : Number(seen),
    ),
  );
});

export const ALL = onlyMethods('GET');

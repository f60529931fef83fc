import { endpoint, onlyMethods, param } from '../../../../../../../../server/http/endpoint';
import { numberOf } from '../../../../../../../../server/report/address';
import { cardSchema, drawnCard } from '../../../../../../../../server/report/cards';

export const GET = endpoint(
  {
    says: 'A card of a frozen revision, as SVG or PNG.',
    gives: [{ type: 'image/svg+xml' }, { type: 'image/png' }],
    query: {
      subject: 'answer/…, chart/… or photos/… with its id',
      size: 'wide or square',
      theme: 'light, dark or clear',
      as: 'svg or png',
    },
  },
  async (context) => {
    const asked = cardSchema.parse(Object.fromEntries(context.url.searchParams));
    return drawnCard(context.locals.app, param(context, 'study'), numberOf(context), asked);
  },
);

export const ALL = onlyMethods('GET');

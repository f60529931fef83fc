import * as z from 'zod';
import { endpoint, onlyMethods, operatorOf, param } from '../../../../../../server/http/endpoint';
import { done, json } from '../../../../../../server/http/problem';
import {
  dropSentence,
  keepSentence,
  orderSchema,
  orderSentences,
  sentenceSchema,
  thrownSchema,
  throwAway,
} from '../../../../../../server/report/words';

export const PUT = endpoint(
  {
    says: 'Saves a sentence with its present figures.',
    content: sentenceSchema,
    example: {
      content: {
        verdict_id: 'v-1',
        contender_id: 'a-stock',
        kind: 'plus',
        text: 'It hits the mark.',
        rests_on: [],
        version: null,
      },
    },
  },
  async (context, sentence) => {
    return json(
      await keepSentence(
        context.locals.app,
        param(context, 'study'),
        sentence,
        operatorOf(context),
      ),
    );
  },
);

export const POST = endpoint(
  {
    says: 'Puts sentences into an order, or throws a proposed one away.',
    content: z.union([orderSchema, thrownSchema]),
    example: { content: { order: ['v-2', 'v-1'] } },
    gives: 204,
  },
  async (context, asked) => {
    const [study, who] = [param(context, 'study'), operatorOf(context)];
    if ('key' in asked) await throwAway(context.locals.app, study, asked.key, who);
    else await orderSentences(context.locals.app, study, asked, who);
    return done();
  },
);

export const DELETE = endpoint(
  {
    says: 'Takes a sentence out.',
    content: z.strictObject({ verdict_id: z.string().max(64), version: z.number().int() }),
    example: { content: { verdict_id: 'v-1', version: 3 } },
    gives: 204,
  },
  async (context, { verdict_id, version }) => {
    await dropSentence(
      context.locals.app,
      param(context, 'study'),
      verdict_id,
      version,
      operatorOf(context),
    );
    return done();
  },
);

export const ALL = onlyMethods('PUT', 'POST', 'DELETE');

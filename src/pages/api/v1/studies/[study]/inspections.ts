import {
  endpoint,
  onlyMethods,
  operatorOf,
  param,
  queryOf,
} from '../../../../../server/http/endpoint';
import { done, json, RequestError } from '../../../../../server/http/problem';
import { keepWord, wordsOf, wordSchema } from '../../../../../server/inspect/inspections';

export const GET = endpoint(
  {
    says: 'One inspector’s findings in the zones of all specimens.',
    query: { inspector: 'the initials of who inspected' },
  },
  async (context) => {
    const inspector = queryOf(context, 'inspector')?.trim() ?? '';
    if (inspector === '') throw new RequestError(400, 'Name the inspector: ?inspector=initials');
    return json(await wordsOf(context.locals.app, param(context, 'study'), inspector));
  },
);

export const POST = endpoint(
  {
    says: 'Saves an inspector’s findings in a zone of a specimen, in place of the earlier ones.',
    content: wordSchema,
    example: {
      content: {
        specimen_id: 'K7-004',
        zone_id: 'front',
        inspector: 'TS',
        at: '2026-03-02T10:00:00+01:00',
        findings: [{ defect: 'ringing', grade: 2 }],
      },
    },
    gives: 204,
  },
  async (context, word) => {
    await keepWord(context.locals.app, param(context, 'study'), word, operatorOf(context));
    return done();
  },
);

export const ALL = onlyMethods('GET', 'POST');

import { addressOf } from '../../../../../server/access/who';
import { endpoint, onlyMethods, param, queryOf } from '../../../../../server/http/endpoint';
import { json, RequestError } from '../../../../../server/http/problem';
import {
  answerQuestion,
  answerSchema,
  begin,
  beginSchema,
  judgeCookieHeader,
  judgingAt,
  stopJudging,
} from '../../../../../server/panels';

export const GET = endpoint(
  {
    says: 'What a judge of a blind panel is asked now, by the link they came in by.',
    query: { question: 'one that they have come to before, from 1' },
  },
  async (context) => {
    const asked = queryOf(context, 'question');
    if (asked !== null && !/^[1-9]\d{0,3}$/.test(asked)) {
      throw new RequestError(400, '?question= must be a whole number from 1.');
    }
    const number = asked === null ? null : Number(asked);
    return json(
      await judgingAt(context.locals.app, param(context, 'link'), context.request.headers, number),
    );
  },
);

export const POST = endpoint(
  {
    says: 'Begins to judge, or goes on after a break.',
    content: beginSchema,
    isSecret: true,
    example: { content: { initials: 'KM' } },
  },
  async (context, said) => {
    const link = param(context, 'link');
    const { headers } = context.request;
    const { judging, token } = await begin(
      context.locals.app,
      link,
      headers,
      addressOf(headers),
      said,
    );
    const answer = json(judging);
    if (token !== null) answer.headers.append('set-cookie', judgeCookieHeader(link, token));
    return answer;
  },
);

export const PUT = endpoint(
  {
    says: 'Answers a question: by a code that is shown, or none where no difference is seen.',
    content: answerSchema,
    example: { content: { question: 4, answer: '317' } },
  },
  async (context, said) =>
    json(
      await answerQuestion(
        context.locals.app,
        param(context, 'link'),
        context.request.headers,
        said,
      ),
    ),
);

export const DELETE = endpoint(
  { says: 'Stops before the last question; the answers so far count.' },
  async (context) =>
    json(await stopJudging(context.locals.app, param(context, 'link'), context.request.headers)),
);

export const ALL = onlyMethods('GET', 'POST', 'PUT', 'DELETE');

import {
  endpoint,
  onlyMethods,
  operatorOf,
  param,
} from '../../../../../../../server/http/endpoint';
import { done, json, problem } from '../../../../../../../server/http/problem';
import {
  changePanel,
  courseSchema,
  dropPanel,
  panelDraftSchema,
  panelExample,
  panelPage,
  takeStep,
} from '../../../../../../../server/panels';

const both = (context: Parameters<typeof param>[0]) =>
  [param(context, 'study'), param(context, 'panel')] as const;

export const GET = endpoint(
  { says: 'A blind panel: how far it has come; once it has ended, what it found.' },
  async (context) => {
    const page = await panelPage(context.locals.app, ...both(context));
    return page ? json(page) : problem(404, 'There is no such panel.');
  },
);

export const PUT = endpoint(
  {
    says: 'Changes the plan of a blind panel that has not been opened.',
    content: panelDraftSchema,
    example: { content: panelExample },
    gives: 204,
  },
  async (context, draft) => {
    await changePanel(context.locals.app, ...both(context), draft, operatorOf(context));
    return done();
  },
);

export const POST = endpoint(
  {
    says:
      'Opens a panel, looks at its result so far or ends it early with a reason, takes a ' +
      'specimen out, or reveals it.',
    content: courseSchema,
    example: { content: { do: 'open' } },
  },
  async (context, step) =>
    json(await takeStep(context.locals.app, ...both(context), step, operatorOf(context))),
);

export const DELETE = endpoint(
  { says: 'Gives a panel up that was never opened.', gives: 204 },
  async (context) => {
    await dropPanel(context.locals.app, ...both(context), operatorOf(context));
    return done();
  },
);

export const ALL = onlyMethods('GET', 'PUT', 'POST', 'DELETE');

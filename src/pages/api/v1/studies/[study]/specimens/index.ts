import { endpoint, onlyMethods, param } from '../../../../../../server/http/endpoint';
import { listAnswer } from '../../../../../../server/http/list';
import { specimensOf } from '../../../../../../server/measure/readings';

export const GET = endpoint(
  {
    isList: true,
    says: 'The specimens of a study, each with its contender and how many dimensions are measured.',
  },
  async (context) =>
    listAnswer(
      context,
      await specimensOf(context.locals.app, param(context, 'study')),
      (one) => one.specimen_id,
    ),
);

export const ALL = onlyMethods('GET');

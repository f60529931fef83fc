import { studiesRead, studyMade } from '../../../../server/api/answers';
import { v7 as uuid } from 'uuid';
import { endpoint, onlyMethods, operatorOf } from '../../../../server/http/endpoint';
import { listAnswer } from '../../../../server/http/list';
import { json } from '../../../../server/http/problem';
import { addStudy, allStudies, newStudySchema } from '../../../../server/study/studies';

export const GET = endpoint(
  { gives: { schema: studiesRead }, isList: true, says: 'All studies.' },
  async (context) =>
    listAnswer(context, await allStudies(context.locals.app), (study) => study.study_id),
);

export const POST = endpoint(
  {
    says: 'Makes a study: empty, or again as another one.',
    gives: { status: 201, schema: studyMade },
    content: newStudySchema,
    example: { content: { title: 'Clips, three machines', intent: 'machines' } },
  },
  async (context, { study_id = uuid(), ...study }) => {
    return json(await addStudy(context.locals.app, study_id, study, operatorOf(context)), 201);
  },
);

export const ALL = onlyMethods('GET', 'POST');

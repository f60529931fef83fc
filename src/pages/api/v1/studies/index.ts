import { v7 as uuid } from 'uuid';
import { body, endpoint, onlyMethods } from '../../../../server/http/endpoint';
import { json } from '../../../../server/http/problem';
import { addStudy, allStudies, newStudySchema } from '../../../../server/study/studies';

/** All studies. */
export const GET = endpoint(async () => json(await allStudies()));

/** Makes an empty study. */
export const POST = endpoint(async (context) => {
  const { study_id = uuid(), ...study } = await body(context, newStudySchema);
  return json(await addStudy(study_id, study), 201);
});

export const ALL = onlyMethods('GET', 'POST');

import { findStudy } from '../../../../../data';
import { app } from '../../../../../server/app';
import { endpoint, param } from '../../../../../server/http/endpoint';
import { json } from '../../../../../server/http/problem';
import { runsData } from '../../../../../server/runs-page';

/** What the bench shows while the machines print, as it stands now. */
export const GET = endpoint(async (context) => {
  const study = param(context, 'study');
  await findStudy(app().db, study);
  return json(await runsData(study));
});

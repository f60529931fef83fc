import { findStudy, listChanges } from '../../../../../data';
import { app } from '../../../../../server/app';
import { endpoint, param } from '../../../../../server/http/endpoint';
import { json } from '../../../../../server/http/problem';
import { tableOf } from '../../../../../server/rows';

/** What was changed on a row, the latest first; the row's key stands in the query. */
export const GET = endpoint(async (context) => {
  const study = param(context, 'study');
  const { table, ...key } = Object.fromEntries(context.url.searchParams);
  await findStudy(app().db, study);
  return json(await listChanges(app().db, study, tableOf(table ?? ''), key));
});

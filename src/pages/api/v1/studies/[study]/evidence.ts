import { DEFAULT_ALPHA } from '../../../../../core/evaluate';
import { evidenceOf } from '../../../../../core/evidence';
import { loadStudy, NotFoundError } from '../../../../../data';
import { app } from '../../../../../server/app';
import { endpoint, param } from '../../../../../server/http/endpoint';
import { json } from '../../../../../server/http/problem';

/** What a figure was computed from. */
export const GET = endpoint(async (context) => {
  const { study } = await loadStudy(app().db, param(context, 'study'));
  const search = context.url.searchParams;
  const reference = search.get('ref') ?? study.meta.reference;
  if (!study.tables.contenders.some((row) => row.contender_id === reference)) {
    throw new NotFoundError(`There is no contender ${reference} to compare with.`);
  }
  const evidence = evidenceOf(study, search.get('figure') ?? '', reference, DEFAULT_ALPHA);
  if (!evidence) throw new NotFoundError('There is no such figure.');
  return json(evidence);
});

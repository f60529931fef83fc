import { z } from 'zod';
import { SECTION_NAMES, type SectionName } from '../../../../../../core/sections';
import { endpoint, param } from '../../../../../../server/http/endpoint';
import { json } from '../../../../../../server/http/problem';
import { resultsOf } from '../../../../../../server/results';

const sectionSchema = z.enum(SECTION_NAMES as [SectionName, ...SectionName[]]);

/** One section of a study's results. */
export const GET = endpoint(async (context) => {
  const section = sectionSchema.parse(param(context, 'section'));
  const reference = context.url.searchParams.get('ref');
  return json(await resultsOf({ studyId: param(context, 'study'), reference }, [section]));
});

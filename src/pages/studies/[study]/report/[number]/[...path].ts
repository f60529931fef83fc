import { answering, onlyMethods, param } from '../../../../../server/http/endpoint';
import { numberOf } from '../../../../../server/report/address';
import { ownReportFile } from '../../../../../server/report/shown';

/** A file of a revision for who works on the study, published or not; its page where none is named. */
export const GET = answering(async (context) => {
  const { pathname } = context.url;
  const path = context.params.path ?? '';
  if (path === '' && !pathname.endsWith('/')) {
    return new Response(null, { status: 301, headers: { location: `${pathname}/` } });
  }
  return ownReportFile(context.locals.app, param(context, 'study'), numberOf(context), path);
});

export const ALL = onlyMethods('GET');

import { answering, onlyMethods, param } from '../../../../server/http/endpoint';
import { readReport } from '../../../../server/report/shown';

/** A file of a published revision; its page where none is named. */
export const GET = answering(async (context) => {
  const { pathname } = context.url;
  const path = context.params.path ?? '';
  const [name, revision] = [param(context, 'name'), param(context, 'revision')];
  // What the page names lies beside it: its address ends with a slash.
  if (path === '' && !pathname.endsWith('/')) {
    return new Response(null, { status: 301, headers: { location: `${pathname}/` } });
  }
  return readReport(context.locals.app, name, revision, path);
});

export const ALL = onlyMethods('GET');

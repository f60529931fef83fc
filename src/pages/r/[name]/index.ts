import { answering, onlyMethods, param } from '../../../server/http/endpoint';
import { readReport } from '../../../server/report/shown';

/** The latest revision of a report. */
export const GET = answering(async (context) =>
  readReport(context.locals.app, param(context, 'name'), null, ''),
);

export const ALL = onlyMethods('GET');

import { json, problem } from '../../../server/http/problem';
import { endpoint, onlyMethods, queryOf } from '../../../server/http/endpoint';
import { importUpload } from '../../../server/study/import-upload';

export const PUT = endpoint(
  {
    says:
      'Takes a zip of a study package and puts it into the database, all of it or nothing. With ' +
      'a key in the header `idempotency-key` an import that is sent again makes no second study.',
    file: 'application/zip',
    query: { key: 'like the header Idempotency-Key: sent again, no second study is made' },
    gives: 201,
  },
  async (context) => {
    const { request } = context;
    const key = request.headers.get('idempotency-key') ?? queryOf(context, 'key');
    const { faults, faultCount, warnings, studyId, alike } = await importUpload(
      context.locals.app,
      request,
      key,
    );
    if (studyId !== null) return json({ study_id: studyId, warnings, alike: alike ?? [] }, 201);
    return problem(422, 'The package has faults; nothing was imported.', {
      faults,
      fault_count: faultCount,
      warnings,
    });
  },
);

export const ALL = onlyMethods('PUT');

import { endpoint, fileAnswer, onlyMethods, param } from '../../../../../server/http/endpoint';
import { openStudyZip } from '../../../../../server/study/export';

export const GET = endpoint(
  { says: 'The study as a zip of its package.', gives: { type: 'application/zip' } },
  async (context) => {
    const { name, zip } = await openStudyZip(context.locals.app, param(context, 'study'));
    return fileAnswer(zip, {
      'content-type': 'application/zip',
      'content-disposition': `attachment; filename="${name}.zip"`,
      'cache-control': 'no-store',
    });
  },
);

export const ALL = onlyMethods('GET');

import { Readable } from 'node:stream';
import { app } from '../../../../../server/app';
import { exportStudy } from '../../../../../server/export-study';
import { endpoint, param } from '../../../../../server/http/endpoint';

/** The study as a zip of its package. */
export const GET = endpoint(async (context) => {
  const { name, zip } = await exportStudy(app().db, param(context, 'study'));
  return new Response(Readable.toWeb(zip) as ReadableStream, {
    headers: {
      'content-type': 'application/zip',
      'content-disposition': `attachment; filename="${name}.zip"`,
      'cache-control': 'no-store',
    },
  });
});

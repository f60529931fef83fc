import { createWriteStream } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable, Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { ReadableStream } from 'node:stream/web';
import { app } from '../../../server/app';
import { endpoint } from '../../../server/http/endpoint';
import { json, problem, RequestError } from '../../../server/http/problem';
import { importStudy } from '../../../server/import-study';
import { queueUnread } from '../../../server/jobs';

const UPLOAD_LIMIT = 4 * 1024 ** 3;

/** Takes a zip of a study package and puts it into the database, all of it or nothing. */
export const PUT = endpoint(async ({ request }) => {
  if (!request.body) throw new RequestError(400, 'Send the zip as the content of the request.');
  if (Number(request.headers.get('content-length') ?? 0) > UPLOAD_LIMIT) {
    throw new RequestError(413, 'The package is over 4 GiB.');
  }
  const folder = await mkdtemp(join(tmpdir(), 'vergleich-import-'));
  const file = join(folder, 'package.zip');
  try {
    let bytes = 0;
    const limit = new Transform({
      transform(chunk: Buffer, _, done) {
        bytes += chunk.length;
        done(
          bytes > UPLOAD_LIMIT ? new RequestError(413, 'The package is over 4 GiB.') : null,
          chunk,
        );
      },
    });
    await pipeline(
      Readable.fromWeb(request.body as unknown as ReadableStream),
      limit,
      createWriteStream(file),
    );
    const outcome = await importStudy(app().db, file);
    const { faults, faultCount, warnings, studyId } = outcome;
    if (studyId !== null) {
      await queueUnread(app());
      return json({ study_id: studyId, warnings }, 201);
    }
    return problem(422, 'The package has faults; nothing was imported.', {
      faults,
      fault_count: faultCount,
      warnings,
    });
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
});

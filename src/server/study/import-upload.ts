import { createWriteStream } from 'node:fs';
import { join } from 'node:path';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { withFolder } from '../../files/temporary';
import { checkWork } from '../access/tries';
import { afterwards, type App } from '../app';
import { streamOf } from '../http/content';
import { RequestError } from '../http/problem';
import { queueUnmade, queueUnread } from '../jobs';
import { importStudy, type ImportOutcome } from './import';
import { packageReader } from './read-package';

const UPLOAD_LIMIT = 4 * 1024 ** 3;
const TOO_LARGE = 'The package is over 4 GiB.';
const KEY = /^[\x21-\x7e]{1,200}$/;

/**
 * Takes a package as the content of a request and imports it. When its sender goes away, the work
 * ends.
 *
 * @param key by which the same import, sent again, is known
 */
export async function importUpload(
  app: App,
  request: Request,
  key: string | null,
): Promise<ImportOutcome> {
  if (key !== null && !KEY.test(key)) {
    throw new RequestError(400, 'idempotency-key must be 1 to 200 printable characters.');
  }
  if (Number(request.headers.get('content-length') ?? 0) > UPLOAD_LIMIT) {
    throw new RequestError(413, TOO_LARGE);
  }
  await checkWork(app, 'imports');
  const { signal } = request;
  const outcome = await withFolder('import', async (folder) => {
    const file = join(folder, 'package.zip');
    await pipeline(streamOf(request), limitedTo(UPLOAD_LIMIT), createWriteStream(file), { signal });
    return importStudy(app.db, file, packageReader(app), { signal, ...(key !== null && { key }) });
  });
  const { studyId } = outcome;
  if (studyId !== null) {
    afterwards(app, () => queueUnread(app));
    afterwards(app, () => queueUnmade(app, studyId));
  }
  return outcome;
}

function limitedTo(limit: number): Transform {
  let bytes = 0;
  return new Transform({
    transform(chunk: Buffer, _, done) {
      bytes += chunk.length;
      done(bytes > limit ? new RequestError(413, TOO_LARGE) : null, chunk);
    },
  });
}

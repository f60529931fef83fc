import { buffersOf } from '../../files/buffers';
import { Readable } from 'node:stream';
import type { APIContext } from 'astro';
import { RequestError } from './problem';

const JSON_LIMIT = 1024 * 1024;
/**
 * Who sends more than is taken is heard out up to this, and nothing of it kept: a connection that is closed while
 * they still send breaks in their hands before they read why.
 */
const MOST_HEARD_OUT = 64 * 1024 * 1024;

/** The request's JSON as it was sent. @throws RequestError */
export async function jsonOf(context: APIContext): Promise<{ text: string; value: unknown }> {
  const { request } = context;
  if (!request.headers.get('content-type')?.startsWith('application/json')) {
    throw new RequestError(415, 'Send JSON, with content-type application/json.');
  }
  const bytes = await bytesOf(context, JSON_LIMIT, 'The content is over 1 MiB.', 'JSON');
  try {
    const text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
    return { text, value: JSON.parse(text) };
  } catch {
    throw new RequestError(400, 'The content is not JSON.');
  }
}

/**
 * The content of a request as it is, a file.
 *
 * @param tooLarge what is said where it is longer than `limit` bytes
 * @param what what is asked for where there is no content
 */
export async function bytesOf(
  { request }: APIContext,
  limit: number,
  tooLarge: string,
  what = 'the file',
): Promise<Buffer> {
  if (!request.body) {
    throw new RequestError(400, `Send ${what} as the content of the request.`);
  }
  const said = Number(request.headers.get('content-length') ?? 0);
  if (said > MOST_HEARD_OUT) throw new RequestError(413, tooLarge);
  const parts: Buffer[] = [];
  let bytes = 0;
  for await (const part of buffersOf(streamOf(request))) {
    bytes += part.length;
    if (bytes > MOST_HEARD_OUT) break;
    if (said <= limit && bytes <= limit) parts.push(part);
  }
  if (bytes > limit) throw new RequestError(413, tooLarge);
  return Buffer.concat(parts);
}

/** After so long without a byte the sender counts as gone. */
const LONGEST_SILENCE_MS = 60_000;

/** The content of a request as a stream, which breaks off where nothing comes for a minute. */
export function streamOf(request: Request, silenceMs = LONGEST_SILENCE_MS): Readable {
  if (!request.body) throw new RequestError(400, 'Send the bytes as the content of the request.');
  const source = Readable.from(request.body, { objectMode: false });
  return Readable.from(withoutSilence(source, silenceMs), { objectMode: false });
}

/** The parts of a stream. The time runs only while a part is asked for: a slow reader is no silence. */
async function* withoutSilence(source: Readable, silenceMs: number): AsyncGenerator<Buffer> {
  const parts = source[Symbol.asyncIterator]() as AsyncIterator<Buffer>;
  try {
    for (;;) {
      const timer = setTimeout(
        () =>
          source.destroy(
            new RequestError(
              400,
              'Nothing came for a minute: the transfer was ended. Send it again.',
            ),
          ),
        silenceMs,
      );
      const part = await parts.next().finally(() => clearTimeout(timer));
      if (part.done) return;
      yield part.value;
    }
  } finally {
    source.destroy();
  }
}

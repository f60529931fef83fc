import { createHash } from 'node:crypto';
import { alreadyKept, doneOnce, keepAnswer, type OnceKey } from '../../data';
import type { App } from '../app';
import { presentWorker } from './actor';
import { RequestError } from './problem';

const LONGEST_ANSWER = 64 * 1024;
const USUAL = /^[\x21-\x7e]{8,200}$/;

/**
 * Does what a request asks once, however often it is sent with one `Idempotency-Key`: sent again, it has the
 * same answer. That it was done is kept in the transaction that does it, so that nothing is done twice though
 * the process dies in between.
 *
 * @param content what was sent: the same key with another content is refused
 * @throws RequestError
 */
export async function once(
  app: App,
  request: Request,
  content: string,
  work: () => Promise<Response>,
): Promise<Response> {
  const key = request.headers.get('idempotency-key');
  if (key === null) return work();
  if (!USUAL.test(key)) {
    throw new RequestError(400, 'Idempotency-Key must be 8 to 200 characters without blanks.');
  }
  const asked = `${request.method} ${new URL(request.url).pathname}\n${content}`;
  const one: OnceKey = {
    key,
    actor: presentWorker()?.id ?? '',
    request: createHash('sha256').update(asked).digest('hex'),
  };
  const { db, log } = app;
  const before = await alreadyKept(db, one);
  if (before) return answerOf(one, before);
  let answer: Response;
  try {
    answer = await doneOnce(one, work);
  } catch (error) {
    // Somebody else sent the same a moment ago, and it is done.
    const done = await alreadyKept(db, one);
    if (!done) throw error;
    return answerOf(one, done);
  }
  const text = await answer.clone().text();
  if (answer.ok && text.length <= LONGEST_ANSWER) {
    const type = answer.headers.get('content-type');
    // It is done: that its answer cannot be kept does not undo it.
    await keepAnswer(db, one, { status: answer.status, type, text }).catch((error: unknown) =>
      log.warn(error, 'the answer to a request with a key was not stored'),
    );
  }
  return answer;
}

function answerOf(
  one: OnceKey,
  before: NonNullable<Awaited<ReturnType<typeof alreadyKept>>>,
): Response {
  if (before.request !== one.request) {
    throw new RequestError(422, 'This Idempotency-Key came with another request before.');
  }
  if (before.status === null) {
    throw new RequestError(409, 'This was done already; its answer is not known any more.');
  }
  return new Response(before.status === 204 ? null : before.text, {
    status: before.status,
    headers: {
      'cache-control': 'no-store',
      ...(before.type !== null && { 'content-type': before.type }),
    },
  });
}

import { codeOf } from '../../core/model/faults';
import * as z from 'zod';
import { ConflictError, isDatabaseAway, isDiskFull, NotFoundError, RefusedError } from '../../data';
import { PackageError } from '../../files/packages';
import type { App } from '../app';

/** What a status means, in general words. */
export const TITLES = {
  400: 'The request cannot be read',
  401: 'Say who you are',
  403: 'Not allowed',
  404: 'Not found',
  405: 'This is not done here',
  409: 'It does not fit the current state',
  410: 'Not there any more',
  412: 'It was changed by someone else',
  413: 'Too large',
  415: 'Wrong type of content',
  422: 'The content is wrong',
  429: 'Too many tries',
  500: 'Something went wrong here',
  503: 'Not now',
  507: 'No room left',
} as const;

export type ProblemStatus = keyof typeof TITLES;

/** The request is wrong; the message says what to change. */
export class RequestError extends Error {
  override name = 'RequestError';
  constructor(
    readonly status: Exclude<ProblemStatus, 500>,
    message: string,
    readonly details: Record<string, unknown> = {},
  ) {
    super(message);
  }
}

/** An error as RFC 9457 problem details. */
export function problem(
  status: ProblemStatus,
  detail: string,
  more: Record<string, unknown> = {},
): Response {
  const body = { type: 'about:blank', title: TITLES[status], status, detail, ...more };
  return new Response(JSON.stringify(body), {
    status,
    headers: { 'content-type': 'application/problem+json', 'cache-control': 'no-store' },
  });
}

/** An answer as JSON. */
export const json = (value: unknown, status = 200): Response =>
  new Response(JSON.stringify(value), {
    status,
    headers: { 'content-type': 'application/json', 'cache-control': 'no-store' },
  });

/** The answer to a change that has nothing to say. */
export const done = (): Response => new Response(null, { status: 204 });

/** What is said while the database cannot be reached: the entry is still with its sender. */
const AWAY = 'The database does not answer. Nothing was changed; try again in a moment.';

/** The answer when the disk is full. */
const FULL =
  'The disk is full. Nothing was changed. Free some space on the computer that runs the ' +
  'application or its database, then send it again.';

/** Whether an error says that the database cannot be reached. */
export const isAway = (error: unknown): boolean => isDatabaseAway(error);

/** Turns an error into its answer; what nobody expected is logged and told in general words. */
export function problemOf(app: App, error: unknown): Response {
  if (error instanceof RequestError) return refusalOf(error);
  if (error instanceof NotFoundError) return problem(404, error.message);
  if (error instanceof ConflictError) {
    return problem(409, error.message, { current: error.current });
  }
  if (error instanceof RefusedError) return problem(409, error.message, error.details);
  if (error instanceof PackageError) return problem(422, error.message);
  if (error instanceof z.ZodError) {
    const issues = error.issues.map(({ path, message }) => ({
      path: path.map(String).join('.'),
      message,
    }));
    const first = issues[0];
    const detail = first ? `${first.path || 'the content'}: ${first.message}` : 'not valid';
    return problem(400, detail, { issues });
  }
  if (isDiskFull(error)) {
    app.log.error(error, 'the disk is full');
    return problem(507, FULL);
  }
  if (isDatabaseAway(error)) {
    app.log.warn(error, 'the database is away');
    const answer = problem(503, AWAY);
    answer.headers.set('retry-after', '2');
    return answer;
  }
  if (isGoneAway(error)) return problem(400, 'The request broke off.');
  app.log.error(error, 'request failed');
  return problem(500, 'The server could not do this. Its log has the reason.');
}

function refusalOf({ status, message, details }: RequestError): Response {
  const answer = problem(status, message, details);
  if (status === 429) answer.headers.set('retry-after', `${Number(details.retry_after_s ?? 60)}`);
  return answer;
}

/** Whether a request's sender went away while it was read: nobody sees the answer. */
const isGoneAway = (error: unknown): boolean => {
  if (!(error instanceof Error)) return false;
  const code = codeOf(error);
  return (
    error.name === 'AbortError' ||
    code === 'ECONNRESET' ||
    code === 'ERR_STREAM_PREMATURE_CLOSE' ||
    error.message === 'aborted'
  );
};

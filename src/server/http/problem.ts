import { z } from 'zod';
import { ConflictError, NotFoundError, RefusedError } from '../../data';
import { app } from '../app';
import { PackageError } from '../packages';

/** The request is wrong; the message says what to change. */
export class RequestError extends Error {
  override name = 'RequestError';
  constructor(
    readonly status: 400 | 403 | 413 | 415 | 422,
    message: string,
    readonly details: Record<string, unknown> = {},
  ) {
    super(message);
  }
}

const TITLES: Record<number, string> = {
  400: 'The request cannot be read',
  403: 'Not allowed from here',
  404: 'Not found',
  409: 'It does not fit with how things stand',
  413: 'Too large',
  415: 'Wrong type of content',
  422: 'The content is wrong',
  500: 'Something went wrong here',
};

/** An error as RFC 9457 problem details. */
export function problem(
  status: number,
  detail: string,
  more: Record<string, unknown> = {},
): Response {
  const body = { type: 'about:blank', title: TITLES[status] ?? 'Error', status, detail, ...more };
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

/** Turns an error into its answer; what nobody expected is logged and told in general words. */
export function problemOf(error: unknown): Response {
  if (error instanceof RequestError) return problem(error.status, error.message, error.details);
  if (error instanceof NotFoundError) return problem(404, error.message);
  if (error instanceof ConflictError) {
    return problem(409, error.message, { current: error.current });
  }
  if (error instanceof RefusedError) return problem(409, error.message);
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
  app().log.error(error, 'request failed');
  return problem(500, 'The server could not do this. Nothing was changed; try again.');
}

import { Readable } from 'node:stream';
import type { APIContext, APIRoute } from 'astro';
import type * as z from 'zod';
import { isPlainText } from '../../core/model/study';
import { ConflictError, isUuid } from '../../data';
import { preconditionFailed, tagged, versionAsked } from './conditional';
import { jsonOf } from './content';
import { once } from './once';
import type { Described, Handler, Operation } from './operation';
import { problem, problemOf, RequestError } from './problem';

/** A page or file whose errors become problem details. */
export const answering =
  (handle: (context: APIContext) => Promise<Response>): APIRoute =>
  async (context) => {
    try {
      checkIds(context);
      return await handle(context);
    } catch (error) {
      return problemOf(context.locals.app, error);
    }
  };

/**
 * A method of an endpoint: what it is sent is checked as its description says, its errors become problem
 * details. What adds something is done once for an `Idempotency-Key`; what changes a record may name the
 * version it was made from by `If-Match`; what is read has an `ETag`.
 */
export function endpoint<Content extends z.ZodType = z.ZodUndefined>(
  operation: Operation<Content>,
  handle: Handler<Content>,
): Described {
  const route: APIRoute = async (context) => {
    try {
      checkIds(context);
      return await answerTo(context, operation, handle);
    } catch (error) {
      const answer = problemOf(context.locals.app, error);
      const isOutdated = error instanceof ConflictError && context.request.headers.has('if-match');
      return isOutdated ? preconditionFailed(answer) : answer;
    }
  };
  return Object.assign(route, { operation });
}

/** Parts of addresses that are UUIDs; a row's key in `rows/[table]` has its own. */
const UUID_PARAMS = ['study', 'reading', 'deletion', 'person', 'device', 'uid'] as const;

/** An id that can be none is nobody's: the answer is the same everywhere. @throws RequestError 404 */
function checkIds({ params }: APIContext): void {
  const names = params.table === undefined ? [...UUID_PARAMS, 'key'] : UUID_PARAMS;
  for (const name of names) {
    const value = params[name];
    if (value === undefined || isUuid(value)) continue;
    throw new RequestError(404, `There is no ${name} ${value.slice(0, 80)}.`);
  }
}

async function answerTo<Content extends z.ZodType>(
  context: APIContext,
  operation: Operation<Content>,
  handle: Handler<Content>,
): Promise<Response> {
  const { content: schema } = operation;
  const { method } = context.request;
  if (!schema) {
    const answer = await handle(context, undefined as z.infer<Content>);
    return method === 'GET' ? tagged(context, answer) : answer;
  }
  const version = versionAsked(context);
  // Where the version is all that is sent, `If-Match` says it alone.
  const isBare = version !== null && !context.request.headers.has('content-type');
  const { text, value } = isBare ? { text: '', value: {} } : await jsonOf(context);
  const isRecord = typeof value === 'object' && value !== null && !('version' in value);
  const content = schema.parse(version !== null && isRecord ? { ...value, version } : value);
  const work = () => handle(context, content);
  return method === 'POST' && operation.isSecret !== true
    ? once(context.locals.app, context.request, text, work)
    : work();
}

/** What an address answers to any method that it does not have. */
export const onlyMethods =
  (...methods: readonly string[]): APIRoute =>
  ({ request }) => {
    const allow = methods.join(', ');
    const refusal = problem(405, `${request.method} is not done here, only ${allow}.`);
    refusal.headers.set('allow', allow);
    return refusal;
  };

/** A part of the path, as it was meant: decoded, and of characters that can be kept. */
export function param(context: APIContext, name: string): string {
  const value = context.params[name];
  if (!value) throw new RequestError(400, `The address lacks its ${name}.`);
  if (!isPlainText(value)) throw new RequestError(400, `The ${name} holds a control character.`);
  return value;
}

/** A part of the path that is an id. @throws RequestError 404 where it can be none */
export function uuidParam(context: APIContext, name: string): string {
  const value = param(context, name);
  if (!isUuid(value)) throw new RequestError(404, `There is no ${name} ${value.slice(0, 80)}.`);
  return value;
}

/** A value of the query, where it is there; of characters that can be kept. */
export function queryOf(context: APIContext, name: string): string | null {
  const value = context.url.searchParams.get(name);
  if (value !== null && !isPlainText(value)) {
    throw new RequestError(400, `?${name}= holds a control character.`);
  }
  return value;
}

/** An answer of a file: its content as a stream, with its type and how it is to be kept. */
export const fileAnswer = (content: Readable, headers: Record<string, string>): Response =>
  new Response(Readable.toWeb(content) as ReadableStream<Uint8Array>, { headers });

/** Who works at the bench: initials that the browser keeps and sends along. */
export function operatorOf(context: APIContext): string | null {
  const sent = context.request.headers.get('x-operator');
  if (!sent) return null;
  let name: string;
  try {
    name = decodeURIComponent(sent).trim().slice(0, 60);
  } catch {
    throw new RequestError(400, 'The header x-operator must be URI-encoded.');
  }
  if (!isPlainText(name)) {
    throw new RequestError(400, 'The header x-operator holds a control character.');
  }
  return name === '' ? null : name;
}

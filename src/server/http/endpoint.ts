import { Readable } from 'node:stream';
import type { ReadableStream } from 'node:stream/web';
import type { APIContext, APIRoute } from 'astro';
import type * as z from 'zod';
import { isPlainText } from '../../core/study';
import { problem, problemOf, RequestError } from './problem';

const BODY_LIMIT = 1024 * 1024;

/** An endpoint whose errors become problem details. */
export const endpoint =
  (handle: (context: APIContext) => Promise<Response>): APIRoute =>
  async (context) => {
    try {
      return await handle(context);
    } catch (error) {
      return problemOf(error);
    }
  };

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

/** A value of the query, where it is there; of characters that can be kept. */
export function queryOf(context: APIContext, name: string): string | null {
  const value = context.url.searchParams.get(name);
  if (value !== null && !isPlainText(value)) {
    throw new RequestError(400, `?${name}= holds a control character.`);
  }
  return value;
}

/** The request's JSON, checked. @throws RequestError, ZodError */
export async function body<Schema extends z.ZodType>(
  context: APIContext,
  schema: Schema,
): Promise<z.infer<Schema>> {
  const { request } = context;
  if (!request.headers.get('content-type')?.startsWith('application/json')) {
    throw new RequestError(415, 'Send JSON, with content-type application/json.');
  }
  const bytes = await bytesOf(context, BODY_LIMIT, 'The content is over 1 MiB.', 'JSON');
  let parsed: unknown;
  try {
    parsed = JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(bytes));
  } catch {
    throw new RequestError(400, 'The content is not JSON.');
  }
  return schema.parse(parsed);
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
  if (Number(request.headers.get('content-length') ?? 0) > limit) {
    throw new RequestError(413, tooLarge);
  }
  const parts: Buffer[] = [];
  let bytes = 0;
  for await (const part of streamOf(request)) {
    bytes += (part as Buffer).length;
    if (bytes > limit) throw new RequestError(413, tooLarge);
    parts.push(part as Buffer);
  }
  return Buffer.concat(parts);
}

/** The content of a request as a stream. */
export function streamOf(request: Request): Readable {
  if (!request.body) throw new RequestError(400, 'Send the bytes as the content of the request.');
  return Readable.fromWeb(request.body as unknown as ReadableStream);
}

/** An answer of a file: its content as a stream, with its type and how it is to be kept. */
export const fileAnswer = (content: Readable, headers: Record<string, string>): Response =>
  new Response(Readable.toWeb(content) as unknown as BodyInit, { headers });

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

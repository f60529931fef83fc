import { Readable } from 'node:stream';
import type { ReadableStream } from 'node:stream/web';
import type { APIContext, APIRoute } from 'astro';
import type { z } from 'zod';
import { problemOf, RequestError } from './problem';

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

/** A part of the path. */
export function param(context: APIContext, name: string): string {
  const value = context.params[name];
  if (!value) throw new RequestError(400, `The address lacks its ${name}.`);
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
  let text = '';
  let bytes = 0;
  const decoder = new TextDecoder();
  for await (const chunk of (request.body ?? []) as AsyncIterable<Uint8Array>) {
    bytes += chunk.length;
    if (bytes > BODY_LIMIT) throw new RequestError(413, 'The content is over 1 MiB.');
    text += decoder.decode(chunk, { stream: true });
  }
  let parsed: unknown;
  try {
    parsed = JSON.parse(text);
  } catch {
    throw new RequestError(400, 'The content is not JSON.');
  }
  return schema.parse(parsed);
}

/**
 * The content of a request as it is, a file.
 *
 * @param tooLarge what is said where it is longer than `most` bytes
 */
export async function bytesOf(
  { request }: APIContext,
  most: number,
  tooLarge: string,
): Promise<Buffer> {
  if (!request.body) throw new RequestError(400, 'Send the file as the content of the request.');
  const parts: Buffer[] = [];
  let bytes = 0;
  for await (const part of Readable.fromWeb(request.body as unknown as ReadableStream)) {
    bytes += (part as Buffer).length;
    if (bytes > most) throw new RequestError(413, tooLarge);
    parts.push(part as Buffer);
  }
  return Buffer.concat(parts);
}

/** Who works at the bench: initials that the browser keeps and sends along. */
export function operatorOf(context: APIContext): string | null {
  const sent = context.request.headers.get('x-operator');
  if (!sent) return null;
  try {
    const name = decodeURIComponent(sent).trim().slice(0, 60);
    return name === '' ? null : name;
  } catch {
    throw new RequestError(400, 'The header x-operator must be URI-encoded.');
  }
}

import type { APIContext } from 'astro';
import * as z from 'zod';
import { isPlainText } from '../../core/model/study';
import { param, queryOf } from '../http/endpoint';
import { RequestError } from '../http/problem';

/** A file that is announced before its bytes are sent. */
export const announcedSchema = z.strictObject({
  name: z.string().min(1).max(255).refine(isPlainText, 'holds a control character'),
  bytes: z.number().int().positive('the file is empty'),
  sha256: z.string().regex(/^[0-9a-f]{64}$/, 'must be a SHA-256 in 64 hexadecimal digits'),
});

/** The digest that an upload is known by. */
export function digestOf(context: APIContext): string {
  const sha256 = param(context, 'sha256');
  if (/^[0-9a-f]{64}$/.test(sha256)) return sha256;
  throw new RequestError(400, 'An upload is known by its SHA-256 in 64 hexadecimal digits.');
}

/** From where on the bytes of a request belong to their file; at most `largest` of them are taken. */
export function offsetOf(context: APIContext, largest: number): number {
  const offset = Number(queryOf(context, 'offset'));
  if (!Number.isSafeInteger(offset) || offset < 0) {
    throw new RequestError(400, 'offset must say how many bytes have arrived.');
  }
  if (Number(context.request.headers.get('content-length') ?? 0) > largest) {
    throw new RequestError(413, `The file is over ${Math.round(largest / 1024 ** 2)} MiB.`);
  }
  return offset;
}

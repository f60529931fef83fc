import { createHash } from 'node:crypto';
import type { APIContext } from 'astro';
import { json, RequestError } from './problem';

/** An answer of a record that has a version: that is its entity tag (RFC 9110, 8.8.3). */
export function versioned(record: { row_version: number }): Response {
  const answer = json(record);
  answer.headers.set('etag', `"${record.row_version}"`);
  return answer;
}

/** The version that a request was made from, where it says so as `If-Match`. @throws RequestError */
export function versionAsked({ request }: APIContext): number | null {
  const said = request.headers.get('if-match');
  if (said === null) return null;
  const [, version] = /^"(\d{1,15})"$/.exec(said.trim()) ?? [];
  if (version === undefined) {
    throw new RequestError(
      400,
      'If-Match must be the ETag of the record as it was read, like "7".',
    );
  }
  return Number(version);
}

/** What somebody is told whose version is no longer the present one, in the words of RFC 9110. */
export function preconditionFailed(answer: Response): Response {
  return new Response(answer.body, { status: 412, headers: answer.headers });
}

/**
 * An answer of JSON with a tag, or the word that it has not changed since whoever asks has seen it. A record
 * that has a version has it as its tag; anything else one that follows from its content.
 */
export async function tagged({ request }: APIContext, answer: Response): Promise<Response> {
  if (answer.status !== 200 || answer.headers.get('content-type') !== 'application/json') {
    return answer;
  }
  const text = await answer.text();
  const { headers } = answer;
  if (!headers.has('etag')) {
    headers.set(
      'etag',
      `W/"${createHash('sha256').update(text).digest('base64url').slice(0, 22)}"`,
    );
  }
  const known = request.headers.get('if-none-match')?.split(',') ?? [];
  const weak = (tag: string) => tag.trim().replace(/^W\//, '');
  const isKnown = known.some((tag) => weak(tag) === weak(headers.get('etag') ?? ''));
  if (!isKnown) return new Response(text, { headers });
  headers.delete('content-type');
  return new Response(null, { status: 304, headers });
}

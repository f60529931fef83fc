import type { IncomingMessage, ServerResponse } from 'node:http';
import type { Duplex } from 'node:stream';
import { problem, type ProblemStatus } from './problem';

const METHODS = new Set(['GET', 'HEAD', 'POST', 'PUT', 'PATCH', 'DELETE', 'OPTIONS']);

/** What is wrong with a request line, before anything is asked of the application; null for nothing. */
function whyNot(req: IncomingMessage): { status: ProblemStatus; detail: string } | null {
  if (!METHODS.has(req.method ?? '')) {
    return { status: 405, detail: `${req.method ?? 'This method'} is not done here.` };
  }
  const url = req.url ?? '';
  const [path = ''] = url.split('?');
  if (url.length > 8000) return { status: 400, detail: 'The address is too long.' };
  if (/%00/.test(url)) return { status: 400, detail: 'The address holds a NUL.' };
  if (/%25[0-9a-f]{2}/i.test(path)) {
    return { status: 400, detail: 'The address is encoded twice.' };
  }
  try {
    decodeURIComponent(path);
  } catch {
    return { status: 400, detail: 'The address has a % that does not begin a character.' };
  }
  if (path.startsWith('/_image')) return { status: 404, detail: 'There is nothing at /_image.' };
  return null;
}

/** Answers a request that is none; returns whether it did. */
export function refuseEarly(req: IncomingMessage, res: ServerResponse): boolean {
  const refusal = whyNot(req);
  if (!refusal) return false;
  const answer = problem(refusal.status, refusal.detail);
  answer.headers.forEach((value, name) => res.setHeader(name, value));
  res.statusCode = refusal.status;
  if (refusal.status === 405) res.setHeader('allow', [...METHODS].join(', '));
  void answer.text().then((text) => res.end(text));
  return true;
}

/** Answers what is no request at all: a method, a header or a line that cannot be read. */
export function refuseUnreadable(_: Error, socket: Duplex): void {
  if (!socket.writable) return;
  const body = JSON.stringify({
    type: 'about:blank',
    title: 'The request cannot be read',
    status: 400,
    detail: 'The request is not HTTP as it is spoken here.',
  });
  socket.end(
    'HTTP/1.1 400 Bad Request\r\ncontent-type: application/problem+json\r\n' +
      `content-length: ${body.length}\r\nconnection: close\r\n` +
      `\r\n${body}`,
  );
}

import type { IncomingMessage, ServerResponse } from 'node:http';
import { problem, type ProblemStatus } from './problem';

const METHODS = new Set(['GET', 'HEAD', 'POST', 'PUT', 'PATCH', 'DELETE', 'OPTIONS']);

/** What is wrong with a request line, before anything is asked of the application; null for nothing. */
function whyNot(req: IncomingMessage): { status: ProblemStatus; detail: string } | null {
  if (!METHODS.has(req.method ?? '')) {
    return { status: 405, detail: `${req.method ?? 'This method'} is not done here.` };
  }
  const [path = ''] = (req.url ?? '').split('?');
  if (path.length > 4000) return { status: 400, detail: 'The address is too long.' };
  // Twice, as parts of a path are decoded again where they name a row.
  let decoded = path;
  for (let round = 0; round < 2; round += 1) {
    try {
      decoded = decodeURIComponent(decoded.replaceAll('%25', '%2525'));
    } catch {
      return { status: 400, detail: 'The address has a % that does not begin a character.' };
    }
    if (decoded.includes('\0')) return { status: 400, detail: 'The address holds a NUL.' };
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

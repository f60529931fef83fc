import type { IncomingMessage, ServerResponse } from 'node:http';
import { isReachable } from '../../data';
import type { App } from '../app';

/** What is asked by whoever watches over the process; it needs no sign-in and tells nothing else. */
const PATHS = new Set(['/healthz', '/readyz']);

/** So long the database may take to say that it is there, ms. */
const PATIENCE_MS = 2000;

/** Answers whether the process is alive, and whether it is ready for work; returns whether that was asked. */
export function tellHealth(app: App, req: IncomingMessage, res: ServerResponse): boolean {
  const path = (req.url ?? '').split('?')[0] ?? '';
  if (!PATHS.has(path) || (req.method !== 'GET' && req.method !== 'HEAD')) return false;
  const say = (isWell: boolean, words: string) => {
    res.statusCode = isWell ? 200 : 503;
    res.setHeader('content-type', 'text/plain; charset=utf-8');
    res.setHeader('cache-control', 'no-store');
    res.end(`${words}\n`);
  };
  if (path === '/healthz') say(true, 'alive');
  else {
    void isReachable(app.db, PATIENCE_MS).then((isThere) =>
      say(isThere, isThere ? 'ready' : 'the database does not answer'),
    );
  }
  return true;
}

import { bareHost, doors } from './doors';

const LOOPBACK = /^(?:localhost|127(?:\.\d{1,3}){3}|\[::1\])(?::\d+)?$/;

/** Whether a host name is one of this machine's own. */
export const isLoopback = (host: string): boolean => LOOPBACK.test(host);

/** Whether this is one of the names by which the application may be addressed. */
export const isOwnHost = (host: string): boolean =>
  isLoopback(host) || doors().names.has(bareHost(host));

/**
 * Whether a request comes from this program's own pages or from no page at all. Another site's
 * page is told by its origin; a name that another site points at this machine, by the host.
 */
export function isOwnRequest(request: Request): boolean {
  const host = request.headers.get('host') ?? '';
  if (!isOwnHost(host)) return false;
  if (request.method === 'GET' || request.method === 'HEAD') return true;
  const site = request.headers.get('sec-fetch-site');
  if (site !== null && site !== 'same-origin' && site !== 'none') return false;
  const origin = request.headers.get('origin');
  if (origin === null) return true;
  try {
    return new URL(origin).host === host;
  } catch {
    return false;
  }
}

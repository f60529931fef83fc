import { findKey, findSession, hasOwner, isUuid } from '../../data';
import type { App } from '../app';
import { HOUSE, type Actor } from '../http/actor';
import { doors } from '../network/doors';
import { hashOf, isToken } from './tokens';

/** From where a request comes: the front door tells it on, whatever was sent under this name. */
export const FROM_HEADER = 'x-vergleich-from';

/** The cookie of a session; under TLS a browser takes it from this host only. */
export const sessionCookie = (): string => (doors().isSecure ? '__Host-vergleich' : 'vergleich');

/** The value that a request's cookies have under a name. */
export function cookieOf(headers: Headers, name: string): string | null {
  for (const part of (headers.get('cookie') ?? '').split(';')) {
    const at = part.indexOf('=');
    if (at > 0 && part.slice(0, at).trim() === name) return part.slice(at + 1).trim();
  }
  return null;
}

/** The address that a request comes from. */
export const addressOf = (headers: Headers): string => headers.get(FROM_HEADER) ?? '127.0.0.1';

/** The page of a browser that a request comes from, by the id that it gave itself; null where it is none. */
export function tabOf(headers: Headers): string | null {
  const tab = headers.get('x-tab');
  return tab !== null && isUuid(tab) ? tab : null;
}

/** The secret that a program sends; null where it sends none. */
const bearerOf = (headers: Headers): string | null =>
  /^Bearer ([A-Za-z0-9_-]{43})$/.exec(headers.get('authorization') ?? '')?.[1] ?? null;

/**
 * As whom a request is made; null where it must be said and is not. There is no sign-in as long as there is
 * no owner: then the application is there for this computer only.
 */
export async function whoAsks(app: App, headers: Headers): Promise<Actor | null> {
  const { db } = app;
  const bearer = bearerOf(headers);
  if (bearer !== null) {
    const key = await findKey(db, hashOf(bearer));
    if (!key) return null;
    return {
      kind: 'key',
      id: `key:${key.key_id}`,
      name: key.name,
      initials: null,
      role: key.role,
      personId: null,
      sessionId: null,
    };
  }
  const token = cookieOf(headers, sessionCookie());
  if (token !== null && isToken(token)) {
    const session = await findSession(db, hashOf(token));
    if (session) {
      const { person_id, session_id, name, initials, role } = session;
      return {
        kind: 'person',
        id: `person:${person_id}`,
        name,
        initials,
        role,
        personId: person_id,
        sessionId: session_id,
      };
    }
  }
  return !doors().isOpen && !(await hasOwner(db)) ? HOUSE : null;
}

import { v7 as uuid } from 'uuid';
import type { Role } from '../../core/model/access';
import {
  findByName,
  findLink,
  findPerson,
  IDLE_DAYS,
  insertPerson,
  insertSession,
  logAccess,
  setPassword,
  transact,
  useLink,
  type AccessLink,
  type Person,
} from '../../data';
import type { App } from '../app';
import { RequestError } from '../http/problem';
import { doors } from '../network/doors';
import { hashPassword, isPassword } from './passwords';
import { hashOf, isToken, newToken } from './tokens';
import { giveBack, takeTry } from './tries';
import { sessionCookie } from './who';

/** From where and with what somebody comes in. */
export interface Visitor {
  address: string;
  device: string;
}

/** A device in a few words: what kind it is, and what its browser says of the system. */
export function deviceOf(userAgent: string | null): string {
  const text = userAgent ?? '';
  if (!text.startsWith('Mozilla/')) return 'a program';
  const kind = /\bMobile\b/.test(text) ? 'phone' : 'computer';
  const system = /\(([^)]*)\)/
    .exec(text)?.[1]
    ?.split(';')
    .map((part) => part.trim())
    .slice(0, 2)
    .join(', ');
  return [kind, system].filter(Boolean).join(': ').slice(0, 80);
}

/** The header that gives a browser its session, or takes it away. */
export function cookieHeader(token: string | null): string {
  const secure = doors().isSecure ? '; Secure' : '';
  const age = token === null ? 0 : IDLE_DAYS * 24 * 3600;
  return `${sessionCookie()}=${token ?? ''}; Path=/; HttpOnly; SameSite=Lax; Max-Age=${age}${secure}`;
}

/** Begins a session; what its cookie holds. */
export async function beginSession(
  db: App['db'],
  person: Pick<Person, 'person_id' | 'name'>,
  role: Role,
  how: string,
  { address, device }: Visitor,
): Promise<string> {
  const token = newToken();
  const session = { session_id: uuid(), person_id: person.person_id, role, device, address };
  await insertSession(db, session, hashOf(token));
  await logAccess(db, {
    what: 'signed in',
    actor: `person:${person.person_id}`,
    name: person.name,
    address,
    detail: { how, device, role },
  });
  return token;
}

/** Signs somebody in by their password. @throws RequestError 401, 429 */
export async function signIn(
  app: App,
  name: string,
  password: string,
  visitor: Visitor,
): Promise<string> {
  const { db } = app;
  const asked = { name, address: visitor.address };
  await takeTry(app, asked);
  const person = await findByName(db, name);
  if (!(await isPassword(person?.password_hash ?? null, password)) || !person) {
    await logAccess(db, {
      what: 'sign-in failed',
      name: name.slice(0, 80),
      address: visitor.address,
    });
    throw new RequestError(401, 'The name or the password is wrong.');
  }
  await giveBack(app, asked);
  return transact(db, (bound) => beginSession(bound, person, person.role, 'by password', visitor));
}

/** What a link offers to whoever opens it. */
export interface LinkOffer {
  kind: AccessLink['kind'];
  /** Whom it lets in; null where it makes the owner. */
  name: string | null;
  role: Role;
}

const LATE = 'This link is not good any more: it was used, or it is late. Ask for another one.';

const isLoopbackAddress = (address: string): boolean => /^(?:::ffff:)?127\.|^::1$/.test(address);

function refuseElsewhere(link: AccessLink, address: string): void {
  if (link.kind === 'owner' && !isLoopbackAddress(address)) {
    throw new RequestError(
      403,
      'The link that makes the owner is good on the computer itself only.',
    );
  }
}

/** What a link would do. @throws RequestError where it is not good, or not from there */
export async function offerOf(app: App, token: string, address: string): Promise<LinkOffer> {
  await takeTry(app, { address });
  const link = isToken(token) ? await findLink(app.db, hashOf(token)) : null;
  if (!link) throw new RequestError(410, LATE);
  await giveBack(app, { address });
  refuseElsewhere(link, address);
  const person = link.person_id ? await findPerson(app.db, link.person_id) : null;
  return {
    kind: link.kind,
    name: person?.name ?? null,
    role: link.role ?? person?.role ?? 'owner',
  };
}

/** What somebody says of themselves as they come in by a link. */
export interface Entering {
  name?: string | undefined;
  initials?: string | undefined;
  password?: string | undefined;
}

/**
 * Comes in by a link, which is used up by it.
 *
 * @returns the session's token, and where it leads
 * @throws RequestError where the link is not good, or what was said is not enough
 */
export async function enterByLink(
  app: App,
  token: string,
  said: Entering,
  visitor: Visitor,
): Promise<{ token: string; leadsTo: string }> {
  const { db } = app;
  const offer = await offerOf(app, token, visitor.address);
  const name = offer.name ?? said.name?.trim() ?? '';
  if (name === '') throw new RequestError(422, 'Say the name that you sign in with.');
  // Hashing takes a tenth of a second: it is done before anything is locked.
  const password = offer.kind === 'device' ? null : await hashPassword(said.password ?? '', [name]);
  return transact(db, async (bound) => {
    const link = await useLink(bound, hashOf(token));
    if (!link) throw new RequestError(410, LATE);
    let person: Pick<Person, 'person_id' | 'name' | 'role'>;
    if (link.person_id !== null) {
      person = await findPerson(bound, link.person_id);
      if (password !== null) await setPassword(bound, person.person_id, password, null);
    } else {
      person = await makeOwner(bound, name, said.initials ?? null, password);
    }
    const role = link.role ?? person.role;
    const session = await beginSession(
      bound,
      person,
      role,
      `by a link for ${link.kind === 'owner' ? 'an' : 'a'} ${link.kind}`,
      visitor,
    );
    return { token: session, leadsTo: link.leads_to ?? '/' };
  });
}

/** The owner of a name, with a new password; made where nobody is called so. */
async function makeOwner(
  db: App['db'],
  name: string,
  initials: string | null,
  password: string | null,
): Promise<Pick<Person, 'person_id' | 'name' | 'role'>> {
  const known = await findByName(db, name);
  if (known && known.role !== 'owner') {
    throw new RequestError(409, `${known.name} is no owner: take another name.`);
  }
  if (known) {
    await setPassword(db, known.person_id, password ?? '', null);
    return known;
  }
  const person = {
    person_id: uuid(),
    name,
    initials: initials?.trim() || null,
    role: 'owner' as const,
  };
  await insertPerson(db, person, password);
  await logAccess(db, { what: 'owner made', name });
  return person;
}

import * as z from 'zod';
import { handedOnBy, isWithin, type Role } from '../../core/model/access';
import {
  endSession,
  findByName,
  listSessions,
  logAccess,
  setPassword,
  transact,
  type Session,
} from '../../data';
import type { App } from '../app';
import { RequestError } from '../http/problem';
import { presentWorker } from '../http/actor';
import { makeLink, type HandedLink } from './links';
import { hashPassword, isPassword } from './passwords';
import { giveBack, takeTry } from './tries';

export const ownChangeSchema = z.strictObject({
  current: z.string().max(1024),
  password: z.string().max(1024),
});

/** A device that who asks is signed in on. */
export type Device = Session & { isThis: boolean };

interface Myself {
  personId: string;
  sessionId: string;
  role: Role;
  name: string;
}

/** The person who asks. @throws RequestError for the house and for programs */
export function myself(): Myself {
  const worker = presentWorker();
  if (!worker?.personId || !worker.sessionId)
    throw new RequestError(409, 'No one is signed in here.');
  const { personId, sessionId, role, name } = worker;
  return { personId, sessionId, role, name };
}

/** The devices that who asks is signed in on, as far as they may do no more than the present one. */
export async function myDevices(app: App): Promise<Device[]> {
  const { personId, sessionId, role } = myself();
  const sessions = await listSessions(app.db, personId);
  return sessions
    .filter((session) => isWithin(session.role, role))
    .map((session) => ({ ...session, isThis: session.session_id === sessionId }));
}

/** Signs a device of who asks out. @throws RequestError where there is none that may do no more than this one */
export async function endDevice(app: App, sessionId: string): Promise<void> {
  const { personId, sessionId: own } = myself();
  if (!(await myDevices(app)).some((device) => device.session_id === sessionId)) {
    throw new RequestError(404, 'There is no such device.');
  }
  await transact(app.db, async (db) => {
    await endSession(db, personId, sessionId);
    await logAccess(db, { what: sessionId === own ? 'signed out' : 'device signed out' });
  });
}

/** Signs the present device out, where somebody is signed in on it. */
export async function signOut(app: App): Promise<void> {
  const worker = presentWorker();
  if (worker?.sessionId) await endDevice(app, worker.sessionId);
}

/** A link that signs a device of who asks in, with their role or less, never the owner's. */
export function pairDevice(app: App, role: Role, leadsTo: string): Promise<HandedLink> {
  const { personId, role: own, name } = myself();
  if (!handedOnBy(own).includes(role)) {
    throw new RequestError(403, `As ${own} you cannot hand on the role ${role}.`);
  }
  return transact(app.db, async (db) => {
    const link = { kind: 'device' as const, person_id: personId, role, leads_to: leadsTo };
    await logAccess(db, { what: 'pairing link made', name, detail: { role } });
    return makeLink(db, link);
  });
}

/** Asks who asks for their password once more, before what lets in is changed. @throws RequestError 403, 429 */
export async function checkOwnPassword(app: App, current: string, address: string): Promise<void> {
  const { name } = myself();
  const asked = { name, address };
  await takeTry(app, asked);
  const person = await findByName(app.db, name);
  if (await isPassword(person?.password_hash ?? null, current)) return giveBack(app, asked);
  throw new RequestError(403, 'This is not the present password.');
}

/** Gives who asks another password; their other devices sign in anew. @throws RequestError */
export async function changeOwnPassword(
  app: App,
  { current, password }: z.infer<typeof ownChangeSchema>,
  address: string,
): Promise<void> {
  const { personId, sessionId, name } = myself();
  await checkOwnPassword(app, current, address);
  const kept = await hashPassword(password, [name]);
  await transact(app.db, async (db) => {
    await setPassword(db, personId, kept, sessionId);
    await logAccess(db, { what: 'password changed', name });
  });
}

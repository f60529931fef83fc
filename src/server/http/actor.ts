import { AsyncLocalStorage } from 'node:async_hooks';
import { may, type Right, type Role } from '../../core/model/access';
import { actingAs } from '../../data';
import { presentRequest } from './scope';

/** In whose name a request is made. */
export interface Actor {
  /** `house`: this computer only, where nobody has to say who they are. */
  kind: 'person' | 'key' | 'house';
  /** As it is kept with what is done: `person:…`, `key:…`; null for the house. */
  id: string | null;
  name: string;
  initials: string | null;
  role: Role;
  personId: string | null;
  sessionId: string | null;
}

/** Who works where there is no sign-in: whoever sits at this computer. */
export const HOUSE: Actor = {
  kind: 'house',
  id: null,
  name: 'this computer',
  initials: null,
  role: 'owner',
  personId: null,
  sessionId: null,
};

const acting = new AsyncLocalStorage<Actor>();

/**
 * Does some work as somebody: what it enters and changes says so.
 *
 * @param tab the browser's page that asks for it, which is not told of its own changes
 */
export function workAs<Result>(
  actor: Actor,
  work: () => Result,
  tab: string | null = null,
): Result {
  const request = presentRequest();
  if (request) request.actor = actor.id;
  return acting.run(actor, () => actingAs(actor.id, work, tab));
}

/** As whom the present work is done; null where it is not known, and then nothing is allowed. */
export const presentWorker = (): Actor | null => acting.getStore() ?? null;

/** Whether whoever asks may do something: what they may not is not offered. */
export function mayNow(right: Right): boolean {
  const worker = presentWorker();
  return worker !== null && may(worker.role, right);
}

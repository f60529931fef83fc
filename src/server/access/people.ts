import { v7 as uuid } from 'uuid';
import * as z from 'zod';
import { ROLES } from '../../core/model/access';
import { name, text } from '../../core/model/study/values';
import {
  changePerson,
  findPerson,
  insertPerson,
  listPeople,
  logAccess,
  transact,
  type Database,
  type Person,
} from '../../data';
import type { App } from '../app';
import { RequestError } from '../http/problem';
import { makeLink, type HandedLink } from './links';

export type { Person } from '../../data';

/** Most people: more is a slip of a program. */
const MOST_PEOPLE = 500;

const initials = text().max(20, 'must have at most 20 characters').nullable();
export const personSchema = z.strictObject({
  name: name().max(80, 'must have at most 80 characters'),
  initials: initials.default(null),
  role: z.enum(ROLES),
});
export const personChangeSchema = z.strictObject({
  version: z.int(),
  role: z.enum(ROLES).optional(),
  initials: initials.optional(),
  isClosed: z.boolean().optional(),
});

export const people = (app: App): Promise<Person[]> => listPeople(app.db);

/** Makes somebody, who sets a password by the link. @throws ConflictError, RequestError */
export const addPerson = (
  app: App,
  sent: z.infer<typeof personSchema>,
): Promise<{ person: Person; link: HandedLink }> =>
  transact(app.db, async (db) => {
    if ((await listPeople(db)).length >= MOST_PEOPLE) {
      throw new RequestError(422, `There are ${MOST_PEOPLE} people already.`);
    }
    const person_id = uuid();
    await insertPerson(db, { person_id, ...sent }, null);
    await logAccess(db, { what: 'person made', name: sent.name, detail: { role: sent.role } });
    const person = await findPerson(db, person_id);
    return { person, link: await passwordLink(db, person) };
  });

/** A link by which somebody sets a password, the first or another. @throws NotFoundError, RequestError */
export const linkFor = (app: App, personId: string): Promise<HandedLink> =>
  transact(app.db, async (db) => passwordLink(db, await findPerson(db, personId)));

async function passwordLink(db: Database, person: Person): Promise<HandedLink> {
  const { name: called, closed_at, person_id } = person;
  if (closed_at !== null) {
    throw new RequestError(409, `${called} no longer comes in: open the door first.`);
  }
  const link = await makeLink(db, { kind: 'person', person_id, role: null, leads_to: '/' });
  await logAccess(db, { what: 'link made', name: called });
  return link;
}

/** Changes somebody. @throws NotFoundError, ConflictError, RefusedError */
export const alterPerson = (
  app: App,
  personId: string,
  { version, ...sent }: z.infer<typeof personChangeSchema>,
): Promise<Person> =>
  transact(app.db, async (db) => {
    const { before, after } = await changePerson(db, personId, sent, version);
    await logAccess(db, { ...whatChanged(before, after), name: after.name });
    return after;
  });

function whatChanged(
  before: Person,
  after: Person,
): { what: string; detail?: { from: string; to: string } } {
  if (before.role !== after.role) {
    return { what: 'role changed', detail: { from: before.role, to: after.role } };
  }
  if ((before.closed_at === null) === (after.closed_at === null)) return { what: 'person changed' };
  return { what: after.closed_at === null ? 'door opened' : 'door closed' };
}

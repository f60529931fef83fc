import * as z from 'zod';
import { EVERY_ROLE, type Role } from '../../core/model/access';
import { execute, moments, query, someRow, type Database } from '../database';
import { ConflictError, NotFoundError, RefusedError } from '../errors';
import { transact } from '../write';

/** Somebody who may come in. */
const personRow = z.strictObject({
  person_id: z.string(),
  /** The name that they sign in with; no two are the same, whatever their case. */
  name: z.string(),
  initials: z.string().nullable(),
  role: z.enum(EVERY_ROLE),
  closed_at: z.string().nullable(),
  created_at: z.string(),
  row_version: z.number(),
});
export type Person = z.infer<typeof personRow>;

const COLUMNS = `person_id, name, initials, role, row_version, ${moments('closed_at', 'created_at')}`;

export const listPeople = (db: Database): Promise<Person[]> =>
  query(
    db,
    personRow,
    `select ${COLUMNS} from people order by people.closed_at is not null, lower(name)`,
  );

/** Whether there is an owner: from then on everybody has to say who they are. */
export async function hasOwner(db: Database): Promise<boolean> {
  const rows = await query(
    db,
    someRow,
    `select 1 from people where role = 'owner' and closed_at is null limit 1`,
  );
  return rows.length > 0;
}

const findByNameRow = z.strictObject({
  person_id: z.string(),
  name: z.string(),
  initials: z.string().nullable(),
  role: z.enum(EVERY_ROLE),
  closed_at: z.string().nullable(),
  created_at: z.string(),
  row_version: z.number(),
  password_hash: z.string().nullable(),
});

/** A person with what their password comes to; null where nobody is called so, or no longer comes in. */
export async function findByName(
  db: Database,
  name: string,
): Promise<(Person & { password_hash: string | null }) | null> {
  const [found] = await query(
    db,
    findByNameRow,
    `select ${COLUMNS}, password_hash from people where lower(name) = lower($1) and closed_at is null`,
    [name],
  );
  return found ?? null;
}

/** @throws NotFoundError */
export async function findPerson(db: Database, personId: string): Promise<Person> {
  const [found] = await query(db, personRow, `select ${COLUMNS} from people where person_id = $1`, [
    personId,
  ]);
  if (!found) throw new NotFoundError(`There is no person ${personId}.`);
  return found;
}

/** @throws ConflictError where somebody is called so already */
export async function insertPerson(
  db: Database,
  person: Pick<Person, 'person_id' | 'name' | 'initials' | 'role'>,
  passwordHash: string | null,
): Promise<void> {
  const { person_id, name, initials, role } = person;
  const rows = await query(
    db,
    someRow,
    `insert into people (person_id, name, initials, role, password_hash)
     values ($1, $2, $3, $4, $5) on conflict (lower(name)) do nothing returning 1`,
    [person_id, name, initials, role, passwordHash],
  );
  if (rows.length === 0) throw new ConflictError(`Somebody is called ${name} already.`, null);
}

/** Gives somebody another password; every device of theirs has to sign in anew, but for one. */
export const setPassword = (
  db: Database,
  personId: string,
  passwordHash: string,
  keptSession: string | null,
): Promise<void> =>
  transact(db, async (bound) => {
    await execute(bound, 'update people set password_hash = $2 where person_id = $1', [
      personId,
      passwordHash,
    ]);
    await execute(
      bound,
      'delete from sessions where person_id = $1 and session_id is distinct from $2',
      [personId, keptSession],
    );
  });

/**
 * Changes somebody's role or initials, or closes the door to them. Their devices sign in anew where they may
 * less than before.
 *
 * @throws NotFoundError, ConflictError, RefusedError where no owner would be left
 */
export function changePerson(
  db: Database,
  personId: string,
  change: {
    role?: Role | undefined;
    initials?: string | null | undefined;
    isClosed?: boolean | undefined;
  },
  version: number,
): Promise<{ before: Person; after: Person }> {
  return transact(db, async (bound) => {
    // Two owners who close the door to each other follow one another.
    await execute(bound, 'lock table people in share row exclusive mode');
    const before = await findPerson(bound, personId);
    if (before.row_version !== version) {
      throw new ConflictError('Somebody else has changed this person.', before);
    }
    await execute(
      bound,
      `update people set role = $2, initials = $3, row_version = row_version + 1,
         closed_at = case when $4 then coalesce(closed_at, now()) end
       where person_id = $1`,
      [
        personId,
        change.role ?? before.role,
        change.initials === undefined ? before.initials : change.initials,
        change.isClosed ?? before.closed_at !== null,
      ],
    );
    if (!(await hasOwner(bound))) {
      throw new RefusedError('This is the last owner: make another one first.');
    }
    const after = await findPerson(bound, personId);
    if (after.role !== before.role || after.closed_at !== null) {
      await execute(bound, 'delete from sessions where person_id = $1', [personId]);
    }
    return { before, after };
  });
}

import * as z from 'zod';
import { execute, moments, query, someRow, type Database } from '../database';

/** A passkey as its person sees it. */
const passkeyRow = z.strictObject({
  passkey_id: z.string(),
  name: z.string(),
  /** The name of the application for which it is good. */
  rp_id: z.string(),
  made_at: z.string(),
  used_at: z.string().nullable(),
});
export type Passkey = z.infer<typeof passkeyRow>;

/** What a passkey is checked by. */
const passkeyProofRow = z.strictObject({
  passkey_id: z.string(),
  person_id: z.string(),
  credential_id: z.string(),
  public_key: z.instanceof(Buffer),
  counter: z.number(),
  /** How it can be reached, as the browser said, with blanks between. */
  transports: z.string(),
});
export type PasskeyProof = z.infer<typeof passkeyProofRow>;

export const listPasskeys = (db: Database, personId: string): Promise<Passkey[]> =>
  query(
    db,
    passkeyRow,
    `select passkey_id, name, rp_id, ${moments('made_at', 'used_at')} from passkeys
     where person_id = $1 order by made_at`,
    [personId],
  );

/** What the passkeys of a person are checked by. */
export const proofsOf = (db: Database, personId: string): Promise<PasskeyProof[]> =>
  query(
    db,
    passkeyProofRow,
    `select passkey_id, person_id, credential_id, public_key, counter::float8 as counter, transports
     from passkeys where person_id = $1`,
    [personId],
  );

/** The passkey that a browser names; null for none, or where its person's door is closed. */
export async function findProof(db: Database, credentialId: string): Promise<PasskeyProof | null> {
  const [found] = await query(
    db,
    passkeyProofRow,
    `select passkey_id, person_id, credential_id, public_key, counter::float8 as counter, transports
     from passkeys join people using (person_id) where credential_id = $1 and closed_at is null`,
    [credentialId],
  );
  return found ?? null;
}

export const insertPasskey = (
  db: Database,
  { passkey_id, person_id, credential_id, public_key, counter, transports }: PasskeyProof,
  { name, rp_id }: Pick<Passkey, 'name' | 'rp_id'>,
): Promise<void> =>
  execute(
    db,
    `insert into passkeys
       (passkey_id, person_id, credential_id, public_key, counter, transports, rp_id, name)
     values ($1, $2, $3, $4, $5, $6, $7, $8)`,
    [passkey_id, person_id, credential_id, public_key, counter, transports, rp_id, name],
  );

/** Notes that a passkey was used, and how often it says that it was. */
export const notePasskeyUsed = (db: Database, passkeyId: string, counter: number): Promise<void> =>
  execute(db, 'update passkeys set counter = $2, used_at = now() where passkey_id = $1', [
    passkeyId,
    counter,
  ]);

const deletePasskeyRow = z.strictObject({ name: z.string() });

/** Takes a passkey away. @returns its name; null where the person has no such one */
export async function deletePasskey(
  db: Database,
  personId: string,
  passkeyId: string,
): Promise<string | null> {
  const [gone] = await query(
    db,
    deletePasskeyRow,
    'delete from passkeys where person_id = $1 and passkey_id = $2 returning name',
    [personId, passkeyId],
  );
  return gone?.name ?? null;
}

/** Keeps a challenge for some minutes; those that are over go. @param personId null for whoever signs in */
const MOST_CHALLENGES = 10;

/** Has changes of one person's passkeys follow one another, until the transaction ends. */
export const lockPerson = (db: Database, personId: string): Promise<void> =>
  execute(db, 'select 1 from people where person_id = $1 for update', [personId]);

export async function keepChallenge(
  db: Database,
  challenge: string,
  personId: string | null,
  minutes: number,
): Promise<void> {
  await execute(db, 'delete from passkey_challenges where ends_at < now()');
  // Only a person's latest few challenges are valid: nobody signs in more often at once.
  await execute(
    db,
    `delete from passkey_challenges where challenge in (
       select challenge from passkey_challenges where person_id = $1::uuid
       order by ends_at desc offset ${MOST_CHALLENGES - 1})`,
    [personId],
  );
  await execute(
    db,
    `insert into passkey_challenges (challenge, person_id, ends_at)
     values ($1, $2, now() + make_interval(mins => $3))`,
    [challenge, personId, minutes],
  );
}

/** Uses a challenge up. @returns whether it was there, for this person or whoever signs in */
export async function useChallenge(
  db: Database,
  challenge: string,
  personId: string | null,
): Promise<boolean> {
  const used = await query(
    db,
    someRow,
    `delete from passkey_challenges
     where challenge = $1 and person_id is not distinct from $2::uuid and ends_at > now()
     returning challenge`,
    [challenge, personId],
  );
  return used.length > 0;
}

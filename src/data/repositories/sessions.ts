import * as z from 'zod';
import { EVERY_ROLE } from '../../core/model/access';
import { execute, moments, query, someRow, type Database } from '../database';
import { transact } from '../write';

/** A device that somebody is signed in on. */
const sessionRow = z.strictObject({
  session_id: z.string(),
  person_id: z.string(),
  /** What may be done from it: the person's role, or less. */
  role: z.enum(EVERY_ROLE),
  device: z.string(),
  address: z.string(),
  made_at: z.string(),
  used_at: z.string(),
});
export type Session = z.infer<typeof sessionRow>;

/** A key for a program. */
const accessKeyRow = z.strictObject({
  key_id: z.string(),
  name: z.string(),
  role: z.enum(EVERY_ROLE),
  /** The machine that it is of, where it is a machine's. */
  machine_id: z.string().nullable(),
  made_by: z.string(),
  made_at: z.string(),
  ends_at: z.string(),
  used_at: z.string().nullable(),
  revoked_at: z.string().nullable(),
});
export type AccessKey = z.infer<typeof accessKeyRow>;

/** A link that lets in once. */
const accessLinkRow = z.strictObject({
  kind: z.enum(['person', 'owner', 'device']),
  person_id: z.string().nullable(),
  role: z.enum(EVERY_ROLE).nullable(),
  leads_to: z.string().nullable(),
});
export type AccessLink = z.infer<typeof accessLinkRow>;

/** Days after which a session that was not used is over. */
export const IDLE_DAYS = 30;
/** When a session or key was used is known to so many seconds: not every request writes it. */
const USED_STEP_S = 60;

export const insertSession = (
  db: Database,
  session: Omit<Session, 'made_at' | 'used_at'>,
  tokenHash: Buffer,
): Promise<void> =>
  execute(
    db,
    `insert into sessions (session_id, token_hash, person_id, role, device, address)
     values ($1, $2, $3, $4, $5, $6)`,
    [
      session.session_id,
      tokenHash,
      session.person_id,
      session.role,
      session.device.slice(0, 200),
      session.address,
    ],
  );

const findSessionRow = z.strictObject({
  session_id: z.string(),
  person_id: z.string(),
  role: z.enum(EVERY_ROLE),
  device: z.string(),
  address: z.string(),
  made_at: z.string(),
  used_at: z.string(),
  name: z.string(),
  initials: z.string().nullable(),
  is_old: z.boolean(),
});

/** Who is signed in by a token: their session and person; null where it is over or never was. */
export async function findSession(
  db: Database,
  tokenHash: Buffer,
): Promise<(Session & { name: string; initials: string | null }) | null> {
  const [found] = await query(
    db,
    findSessionRow,
    `select s.session_id, s.person_id, s.role, s.device, s.address, ${moments('s.made_at', 's.used_at')},
       p.name, p.initials, s.used_at < now() - make_interval(secs => $3) as is_old
     from sessions s join people p using (person_id)
     where s.token_hash = $1 and p.closed_at is null
       and s.used_at > now() - make_interval(days => $2)`,
    [tokenHash, IDLE_DAYS, USED_STEP_S],
  );
  if (!found) return null;
  const { is_old, ...session } = found;
  if (is_old)
    await execute(db, 'update sessions set used_at = now() where session_id = $1', [
      session.session_id,
    ]);
  return session;
}

/** The devices that somebody is signed in on, the one used last first. */
export const listSessions = (db: Database, personId: string): Promise<Session[]> =>
  query(
    db,
    sessionRow,
    `select session_id, person_id, role, device, address, ${moments('made_at', 'used_at')} from sessions
     where person_id = $1 and used_at > now() - make_interval(days => $2) order by sessions.used_at desc`,
    [personId, IDLE_DAYS],
  );

/** Ends a session of somebody; whether there was one. */
export async function endSession(
  db: Database,
  personId: string,
  sessionId: string,
): Promise<boolean> {
  const rows = await query(
    db,
    someRow,
    'delete from sessions where session_id = $1 and person_id = $2 returning 1',
    [sessionId, personId],
  );
  return rows.length > 0;
}

export const insertKey = (
  db: Database,
  key: Pick<AccessKey, 'key_id' | 'name' | 'role' | 'machine_id' | 'made_by' | 'ends_at'>,
  tokenHash: Buffer,
): Promise<void> =>
  execute(
    db,
    `insert into access_keys (key_id, name, token_hash, role, machine_id, made_by, ends_at)
     values ($1, $2, $3, $4, $5, $6, $7)`,
    [key.key_id, key.name, tokenHash, key.role, key.machine_id, key.made_by, key.ends_at],
  );

const KEY_COLUMNS =
  'key_id, name, role, machine_id, made_by, ' +
  `${moments('made_at', 'ends_at', 'used_at', 'revoked_at')}`;

const findKeyRow = z.strictObject({
  key_id: z.string(),
  name: z.string(),
  role: z.enum(EVERY_ROLE),
  machine_id: z.string().nullable(),
  made_by: z.string(),
  made_at: z.string(),
  ends_at: z.string(),
  used_at: z.string().nullable(),
  revoked_at: z.string().nullable(),
  is_old: z.boolean(),
});

/** The key of a token; null where it has ended, was taken back, or never was. */
export async function findKey(db: Database, tokenHash: Buffer): Promise<AccessKey | null> {
  const [found] = await query(
    db,
    findKeyRow,
    `select ${KEY_COLUMNS}, used_at is null or used_at < now() - make_interval(secs => $2) as is_old
     from access_keys where token_hash = $1 and revoked_at is null and ends_at > now()`,
    [tokenHash, USED_STEP_S],
  );
  if (!found) return null;
  const { is_old, ...key } = found;
  if (is_old)
    await execute(db, 'update access_keys set used_at = now() where key_id = $1', [key.key_id]);
  return key;
}

export const listKeys = (db: Database): Promise<AccessKey[]> =>
  query(
    db,
    accessKeyRow,
    `select ${KEY_COLUMNS} from access_keys order by access_keys.revoked_at is not null, access_keys.made_at desc`,
  );

const revokeKeyRow = z.strictObject({ name: z.string() });

/** Takes a key back; what it was called, or null where there is none to take back. */
export async function revokeKey(db: Database, keyId: string): Promise<string | null> {
  const [found] = await query(
    db,
    revokeKeyRow,
    'update access_keys set revoked_at = now() where key_id = $1 and revoked_at is null returning name',
    [keyId],
  );
  return found?.name ?? null;
}

/** Keeps a link that lets in once, within so many minutes; older ones that nobody may use any more go. */
export const insertLink = (
  db: Database,
  link: AccessLink,
  tokenHash: Buffer,
  minutes: number,
): Promise<void> =>
  transact(db, async (bound) => {
    await execute(bound, `delete from access_links where ends_at < now() - interval '7 days'`);
    await execute(
      bound,
      `insert into access_links (token_hash, kind, person_id, role, leads_to, ends_at)
       values ($1, $2, $3, $4, $5, now() + make_interval(mins => $6))`,
      [tokenHash, link.kind, link.person_id, link.role, link.leads_to, minutes],
    );
  });

/** A link that is still good; null where it was used, is late, or never was. */
export async function findLink(db: Database, tokenHash: Buffer): Promise<AccessLink | null> {
  const [found] = await query(
    db,
    accessLinkRow,
    `select kind, person_id, role, leads_to from access_links
     where token_hash = $1 and used_at is null and ends_at > now()`,
    [tokenHash],
  );
  return found ?? null;
}

/** Uses a link up; null where it is not good any more. Of two who use it at once, one has it. */
export async function useLink(db: Database, tokenHash: Buffer): Promise<AccessLink | null> {
  const [found] = await query(
    db,
    accessLinkRow,
    `update access_links set used_at = now()
     where token_hash = $1 and used_at is null and ends_at > now()
     returning kind, person_id, role, leads_to`,
    [tokenHash],
  );
  return found ?? null;
}

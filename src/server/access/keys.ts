import { v7 as uuid } from 'uuid';
import * as z from 'zod';
import { name } from '../../core/model/study/values';
import { insertKey, listKeys, logAccess, revokeKey, transact, type AccessKey } from '../../data';
import type { App } from '../app';
import { RequestError } from '../http/problem';
import { presentWorker } from '../http/actor';
import { hashOf, newToken } from './tokens';

export type { AccessKey } from '../../data';

/** Most days that a key lasts. */
const MOST_DAYS = 366;
/** Most keys that are good at a time: more is a slip of a program. */
const MOST_KEYS = 500;

export const keySchema = z
  .strictObject({
    name: name().max(80, 'must have at most 80 characters'),
    role: z.enum(['evaluator', 'operator', 'reader', 'machine']),
    days: z.int().min(1).max(MOST_DAYS, `must be at most ${MOST_DAYS} days`),
    /** The machine that it is of, as its topics name it; only with the role of a machine. */
    machine_id: z
      .string()
      .regex(/^[^/+#\s]{1,64}$/, 'must be 1 to 64 characters, without spaces, /, + or #')
      .optional(),
  })
  .refine(({ role, machine_id }) => (role === 'machine') === (machine_id !== undefined), {
    path: ['machine_id'],
    message: 'must be the machine’s id for the role machine, and left out for others',
  });

/** A key as it is shown once. */
export interface MadeKey {
  key_id: string;
  secret: string;
  ends_at: string;
}

export const keys = (app: App): Promise<AccessKey[]> => listKeys(app.db);

/** Makes a key for a program; its secret is shown this once. @throws RequestError */
export function addKey(
  app: App,
  { name: called, role, days, machine_id }: z.infer<typeof keySchema>,
): Promise<MadeKey> {
  const personId = presentWorker()?.personId ?? null;
  if (personId === null) {
    throw new RequestError(
      409,
      'Keys are made by an owner who is signed in: open the doors first.',
    );
  }
  const secret = newToken();
  const key_id = uuid();
  const ends_at = new Date(Date.now() + days * 86_400_000).toISOString();
  return transact(app.db, async (db) => {
    const good = (await listKeys(db)).filter((key) => key.revoked_at === null);
    if (good.length >= MOST_KEYS)
      throw new RequestError(422, `There are ${MOST_KEYS} keys already.`);
    const key = { key_id, name: called, role, machine_id: machine_id ?? null };
    await insertKey(db, { ...key, made_by: personId, ends_at }, hashOf(secret));
    await logAccess(db, {
      what: 'key made',
      name: called,
      detail: { role, days, ...(machine_id && { machine_id }) },
    });
    return { key_id, secret, ends_at };
  });
}

/** Takes a key back. @throws RequestError where there is none */
export const takeKeyBack = (app: App, keyId: string): Promise<void> =>
  transact(app.db, async (db) => {
    const called = await revokeKey(db, keyId);
    if (called === null) throw new RequestError(404, 'There is no such key to take back.');
    await logAccess(db, { what: 'key taken back', name: called });
  });

import * as z from 'zod';
import { AsyncLocalStorage } from 'node:async_hooks';
import { execute, query, someRow, type Database } from './database';
import { RefusedError } from './errors';

/** A request that is to be done once. */
export interface OnceKey {
  key: string;
  /** Whose key it is; keys of others are others. */
  actor: string;
  /** Hash of what is asked. */
  request: string;
}

/** What was answered; null as long as the answer is not kept. */
const keptAnswerRow = z.strictObject({
  request: z.string(),
  status: z.number().nullable(),
  type: z.string().nullable(),
  text: z.string().nullable(),
});
export type KeptAnswer = z.infer<typeof keptAnswerRow>;

const present = new AsyncLocalStorage<{ one: OnceKey; isDone: boolean }>();

/** Does some work whose first transaction says that it was done; of two at once the second fails. */
export const doneOnce = <Result>(one: OnceKey, work: () => Result): Result =>
  present.run({ one, isDone: false }, work);

/** Notes in a transaction that what is asked for once is done by it. @returns what to call once it is committed */
export async function noteOnce(db: Database): Promise<() => void> {
  const scope = present.getStore();
  if (!scope || scope.isDone) return () => undefined;
  const { key, actor, request } = scope.one;
  // One that is under way elsewhere is waited for here.
  const added = await query(
    db,
    someRow,
    `insert into kept_answers (key, actor, request) values ($1, $2, $3)
     on conflict do nothing returning 1`,
    [key, actor, request],
  );
  if (added.length === 0) throw new RefusedError('This was done already.');
  return () => {
    scope.isDone = true;
  };
}

/** What is known of a request that came before. */
export async function alreadyKept(db: Database, one: OnceKey): Promise<KeptAnswer | null> {
  const [found] = await query(
    db,
    keptAnswerRow,
    'select request, status, type, answer as text from kept_answers where key = $1 and actor = $2',
    [one.key, one.actor],
  );
  return found ?? null;
}

/** Keeps what was answered, for whoever sends it again. */
export const keepAnswer = (
  db: Database,
  one: OnceKey,
  answer: Omit<KeptAnswer, 'request'>,
): Promise<void> =>
  execute(
    db,
    'update kept_answers set status = $3, type = $4, answer = $5 where key = $1 and actor = $2',
    [one.key, one.actor, answer.status, answer.type, answer.text],
  );

/** Forgets answers after a day. */
export const forgetAnswers = (db: Database): Promise<void> =>
  execute(db, `delete from kept_answers where at < now() - interval '1 day'`);

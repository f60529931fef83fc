import { v7 as uuid } from 'uuid';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import { ApiError, callApi, UnreachableError } from '../kit/request';

/** An entry that waits until the server has taken it. Its id makes that it counts once. */
export interface WaitingEntry {
  id: string;
  /** Position in the order in which entries were made. */
  made: number;
  method: 'POST' | 'DELETE';
  path: string;
  content: unknown;
  /** Why the server will not take it; it stays here until somebody has seen it. */
  refused?: string;
}

interface OutboxSchema extends DBSchema {
  entries: { key: string; value: WaitingEntry; indexes: { made: number } };
}

/** Sent on the window whenever what waits has changed. */
export const OUTBOX_EVENT = 'vergleich:outbox';

let opened: Promise<IDBPDatabase<OutboxSchema>> | undefined;

function open(): Promise<IDBPDatabase<OutboxSchema>> {
  opened ??= openDB<OutboxSchema>('vergleich', 1, {
    upgrade(db) {
      db.createObjectStore('entries', { keyPath: 'id' }).createIndex('made', 'made');
    },
  });
  return opened;
}

const notifyWaiting = () => window.dispatchEvent(new CustomEvent(OUTBOX_EVENT));

/** Puts an entry into the outbox; it is safe there from then on. */
export async function enqueue(entry: Omit<WaitingEntry, 'made'>): Promise<void> {
  const db = await open();
  await db.put('entries', { ...entry, made: Date.now() + performance.now() / 1e7 });
  notifyWaiting();
}

/** All entries that wait, the oldest first. */
export const listWaiting = async (): Promise<WaitingEntry[]> =>
  (await open()).getAllFromIndex('entries', 'made');

/** Takes an entry out that the server will not take. */
export async function discard(id: string): Promise<void> {
  await (await open()).delete('entries', id);
  notifyWaiting();
}

/** Answers after which an entry waits: whoever asks must sign in, or come again in a moment. */
const WAITS: ReadonlySet<number> = new Set([401, 429]);
const isForLater = (error: unknown): boolean =>
  error instanceof UnreachableError || (error instanceof ApiError && WAITS.has(error.status));

/**
 * Sends what waits, the oldest first, until the server cannot be reached or wants a sign-in first. Only one page
 * of the browser sends at a time.
 *
 * @returns whether one must sign in before it can be sent
 */
export async function sendWaiting(): Promise<boolean> {
  return navigator.locks.request('vergleich-outbox', async () => {
    const db = await open();
    for (const entry of await listWaiting()) {
      if (entry.refused !== undefined) continue;
      try {
        await callApi(entry.method, entry.path, entry.content);
        await db.delete('entries', entry.id);
      } catch (error) {
        if (isForLater(error)) return error instanceof ApiError && error.status === 401;
        if (!(error instanceof ApiError)) throw error;
        if (error.status >= 500) return false;
        await db.put('entries', { ...entry, refused: error.message });
      }
      notifyWaiting();
    }
    return false;
  });
}

/**
 * Sends an entry; where the server is away, or earlier entries still wait, it is kept here and sent
 * after them, so that they arrive in the order in which they were made. Its content must carry its
 * own id, so that it counts once.
 *
 * @returns the server's answer, or null where the entry waits
 * @throws ApiError where the server refuses it
 */
export async function sendOrKeep<Answer>(path: string, content: unknown): Promise<Answer | null> {
  const keep = async () => {
    await enqueue({ id: uuid(), method: 'POST', path, content });
    return null;
  };
  if (await isWaiting()) {
    await sendWaiting();
    if (await isWaiting()) return keep();
  }
  try {
    return await callApi<Answer>('POST', path, content);
  } catch (error) {
    if (!isForLater(error)) throw error;
    return keep();
  }
}

/** Whether an entry waits that the server has not refused. */
const isWaiting = async (): Promise<boolean> =>
  (await listWaiting()).some((entry) => entry.refused === undefined);

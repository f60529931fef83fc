import 'fake-indexeddb/auto';
import { afterEach, beforeEach, vi } from 'vitest';
import { discard, listWaiting } from '../../src/ui/lib/outbox';

/** An outbox of the browser that is empty before and after each test; one page holds its lock. */
export function emptyOutbox(): void {
  const clear = async () => {
    for (const { id } of await listWaiting()) await discard(id);
  };
  beforeEach(async () => {
    // Whoever asks for the lock waits for those before.
    let turn: Promise<unknown> = Promise.resolve();
    vi.stubGlobal('navigator', {
      locks: {
        request: (_: string, work: () => Promise<unknown>) => {
          const own = turn.then(work);
          turn = own.catch(() => undefined);
          return own;
        },
      },
    });
    await clear();
  });
  afterEach(async () => {
    await clear();
    vi.unstubAllGlobals();
  });
}

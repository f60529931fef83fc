import 'fake-indexeddb/auto';
import { afterEach, beforeEach, vi } from 'vitest';
import { discard, listWaiting } from '../../src/ui/lib/outbox';

/** An outbox of the browser that is empty before and after each test; one page holds its lock. */
export function emptyOutbox(): void {
  const clear = async () => {
    for (const { id } of await listWaiting()) await discard(id);
  };
  beforeEach(async () => {
    // One page of a browser holds the lock; here there is one page.
    vi.stubGlobal('navigator', {
      locks: { request: (_: string, work: () => Promise<unknown>) => work() },
    });
    await clear();
  });
  afterEach(async () => {
    await clear();
    vi.unstubAllGlobals();
  });
}

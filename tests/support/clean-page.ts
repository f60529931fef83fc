import { afterAll, afterEach, expect, vi } from 'vitest';
import { writesUnderWay } from '../../src/ui/kit/request';

// What is waited for is an event, however slow the machine.
if (typeof document !== 'undefined') {
  const { configure } = await import('@testing-library/dom');
  configure({ asyncUtilTimeout: 60_000 });
}

// Files of a thread share the count of writes: a test that leaves a request without an answer fails here,
// and not in whichever file comes next.
afterAll(() => vi.waitFor(() => expect(writesUnderWay(), 'writes left under way').toBe(0)));

// Files of a thread share one page: what a test leaves on it is not there for the next.
afterEach(() => {
  if (typeof document === 'undefined') return;
  document.body.replaceChildren();
  localStorage.clear();
});

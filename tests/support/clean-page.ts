import { afterEach, beforeAll } from 'vitest';
import { forgetWrites } from '../../src/ui/kit/request';

// What is waited for is an event, however slow the machine.
if (typeof document !== 'undefined') {
  const { configure } = await import('@testing-library/dom');
  configure({ asyncUtilTimeout: 60_000 });
}

// What a test of another file left unanswered is not under way in this one.
beforeAll(forgetWrites);

// Files of a thread share one page: what a test leaves on it is not there for the next.
afterEach(() => {
  if (typeof document === 'undefined') return;
  document.body.replaceChildren();
  localStorage.clear();
});

import { afterEach } from 'vitest';

// Files of a thread share one page: what a test leaves on it is not there for the next.
afterEach(() => {
  if (typeof document === 'undefined') return;
  document.body.replaceChildren();
  localStorage.clear();
});

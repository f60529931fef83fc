import { useCallback, useSyncExternalStore } from 'react';

const EVENT = 'vergleich:remembered';

const subscribe = (onChange: () => void) => {
  window.addEventListener(EVENT, onChange);
  window.addEventListener('storage', onChange);
  return () => {
    window.removeEventListener(EVENT, onChange);
    window.removeEventListener('storage', onChange);
  };
};

/** A text that this browser remembers; empty where it does not. */
export function remembered(key: string): string {
  try {
    return localStorage.getItem(key) ?? '';
  } catch {
    return '';
  }
}

/** A text that this browser remembers from page to page, and how to change it. */
export function useRemembered(key: string): [string, (value: string) => void] {
  const value = useSyncExternalStore(
    subscribe,
    () => remembered(key),
    () => '',
  );
  const remember = useCallback(
    (next: string) => {
      try {
        localStorage.setItem(key, next);
      } catch {
        // A browser without storage asks again on the next page.
      }
      window.dispatchEvent(new Event(EVENT));
    },
    [key],
  );
  return [value, remember];
}

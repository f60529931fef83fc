import { useSyncExternalStore } from 'react';

const tick = (onChange: () => void) => {
  const timer = setInterval(onChange, 1000);
  return () => clearInterval(timer);
};

/** The time in ms, second by second; null while the page is still made on the server. */
export const useNow = (): number | null =>
  useSyncExternalStore<number | null>(
    tick,
    () => Math.floor(Date.now() / 1000) * 1000,
    () => null,
  );

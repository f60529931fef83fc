import { useSyncExternalStore } from 'react';

/** How wide a drawing is on a phone, about, px. */
export const PHONE_PX = 340;

const NARROW = '(max-width: 767px)';

const subscribe = (onChange: () => void) => {
  const query = window.matchMedia(NARROW);
  query.addEventListener('change', onChange);
  return () => query.removeEventListener('change', onChange);
};

/** Whether the page stands on a phone; false while it is still made on the server. */
export const useNarrow = (): boolean =>
  useSyncExternalStore(
    subscribe,
    () => window.matchMedia(NARROW).matches,
    () => false,
  );

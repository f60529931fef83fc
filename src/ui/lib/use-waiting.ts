import { useEffect, useState } from 'react';
import { listWaiting, OUTBOX_EVENT, type WaitingEntry } from './outbox';

/** Entries that wait in this browser for the server, kept true as they come and go; null at first. */
export function useWaiting(): readonly WaitingEntry[] | null {
  const [entries, setEntries] = useState<readonly WaitingEntry[] | null>(null);
  useEffect(() => {
    let isGone = false;
    const look = () =>
      void listWaiting().then((found) => {
        if (!isGone) setEntries(found);
      });
    look();
    window.addEventListener(OUTBOX_EVENT, look);
    return () => {
      isGone = true;
      window.removeEventListener(OUTBOX_EVENT, look);
    };
  }, []);
  return entries;
}

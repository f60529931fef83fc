import { useEffect, useState } from 'react';
import { discard, listWaiting, OUTBOX_EVENT, sendWaiting, type WaitingEntry } from '../lib/outbox';

const RETRY_MS = 3000;

/** Says which entries wait in this browser, and sends them when the server is back. */
export function Outbox() {
  const [entries, setEntries] = useState<readonly WaitingEntry[]>([]);
  useEffect(() => {
    let isGone = false;
    const look = async () => {
      const found = await listWaiting();
      if (!isGone) setEntries(found);
      return found;
    };
    const send = async () => {
      const found = await look();
      if (found.some((entry) => entry.refused === undefined)) await sendWaiting();
    };
    const refresh = () => void look();
    const retry = () => void send();
    retry();
    const timer = setInterval(retry, RETRY_MS);
    window.addEventListener('online', retry);
    window.addEventListener(OUTBOX_EVENT, refresh);
    return () => {
      isGone = true;
      clearInterval(timer);
      window.removeEventListener('online', retry);
      window.removeEventListener(OUTBOX_EVENT, refresh);
    };
  }, []);
  const waiting = entries.filter((entry) => entry.refused === undefined).length;
  const refused = entries.filter((entry) => entry.refused !== undefined);
  return (
    <div role="status" className="fixed right-3 bottom-3 z-30 grid max-w-sm gap-2">
      {waiting > 0 && (
        <p className="sheet border-warn bg-warn-soft px-3 py-2 text-warn shadow-lg">
          {waiting === 1 ? '1 entry waits' : `${waiting} entries wait`} in this browser for the
          server.
        </p>
      )}
      {refused.map((entry) => (
        <div key={entry.id} className="sheet border-warn px-3 py-2 shadow-lg">
          <p className="text-warn">An entry was not taken: {entry.refused}</p>
          <pre className="my-1 text-2xs whitespace-pre-wrap">{JSON.stringify(entry.content)}</pre>
          <button type="button" className="action" onClick={() => void discard(entry.id)}>
            Seen, discard it
          </button>
        </div>
      ))}
    </div>
  );
}

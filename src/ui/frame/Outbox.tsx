import { useEffect, useState } from 'react';
import { discard, listWaiting, sendWaiting } from '../lib/outbox';
import { useWaiting } from '../lib/use-waiting';

const RETRY_MS = 3000;

/** Says which entries wait in this browser, and sends them when the server is back. */
export function Outbox() {
  const entries = useWaiting() ?? [];
  const [mustSignIn, setMustSignIn] = useState(false);
  useEffect(() => {
    const send = async () => {
      const found = await listWaiting();
      if (found.some((entry) => entry.refused === undefined)) {
        setMustSignIn(await sendWaiting());
      }
    };
    const retry = () => void send();
    retry();
    const timer = setInterval(retry, RETRY_MS);
    window.addEventListener('online', retry);
    return () => {
      clearInterval(timer);
      window.removeEventListener('online', retry);
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
          {mustSignIn && (
            <a className="ml-2" href={`/sign-in?to=${encodeURIComponent(location.pathname)}`}>
              Sign in to send them
            </a>
          )}
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

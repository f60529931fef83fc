import { nearest } from '../kit/event-target';
import { useEffect, useEffectEvent, useState } from 'react';
import { duration } from '../lib/format';
import { useRemembered } from '../lib/remembered';

interface ClockProps {
  /** By which this browser remembers when it was started: it goes on when the page is left. */
  name: string;
  /** What it counts, as a person says it. */
  what: string;
  /** Told how many seconds it ran, when it is stopped. */
  onStop: (seconds: number) => void;
}

/** A clock that Space starts and stops. */
export function Clock({ name, what, onStop }: ClockProps) {
  const [started, setStarted] = useRemembered(name);
  const [now, setNow] = useState(0);
  const since = Number(started) || 0;
  useEffect(() => {
    if (since === 0) return undefined;
    const timer = setInterval(() => setNow(Date.now()), 250);
    return () => clearInterval(timer);
  }, [since]);
  const turn = () => {
    if (since === 0) {
      setNow(Date.now());
      setStarted(String(Date.now()));
      return;
    }
    setStarted('');
    onStop((Date.now() - since) / 1000);
  };
  const onSpace = useEffectEvent((event: KeyboardEvent) => {
    if (event.key !== ' ' || event.repeat || event.ctrlKey || event.metaKey || event.altKey) return;
    if (nearest(event, 'input, select, textarea, button, a, summary')) return;
    event.preventDefault();
    turn();
  });
  useEffect(() => {
    const listen = (event: KeyboardEvent) => onSpace(event);
    document.addEventListener('keydown', listen);
    return () => document.removeEventListener('keydown', listen);
  }, []);
  return (
    <p className="col-span-full flex flex-wrap items-center gap-3">
      <span role="timer" aria-label={what} className="font-mono text-bench">
        {duration(since === 0 ? 0 : Math.max(0, now - since) / 1000)}
      </span>
      <button
        type="button"
        className="action"
        onClick={turn}
        data-keys="Space"
        data-does={`start and stop the clock of ${what}`}
      >
        {since === 0 ? 'Start clock' : 'Stop clock'} <kbd className="key">Space</kbd>
      </button>
    </p>
  );
}

import { useCallback, useRef, useState } from 'react';

/** A state that is also known to what began before it changed. */
export interface Latest<Value> {
  /** As it is shown. */
  shown: Value;
  /** As it is, whenever that is asked. */
  read: () => Value;
  change: (next: (now: Value) => Value) => void;
}

/** Keeps a state for what takes longer than it stands: an answer is laid over what is there when it comes. */
export function useLatest<Value>(initial: Value | (() => Value)): Latest<Value> {
  const [shown, setShown] = useState(initial);
  const latest = useRef(shown);
  const read = useCallback(() => latest.current, []);
  const change = useCallback((next: (now: Value) => Value) => {
    latest.current = next(latest.current);
    setShown(latest.current);
  }, []);
  return { shown, read, change };
}

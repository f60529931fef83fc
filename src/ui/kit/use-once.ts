import { useCallback, useRef } from 'react';

/** Does a piece of work unless the same one is under way: a hand that comes down twice does one thing. */
export function useOnce(): (key: string, work: () => Promise<unknown>) => void {
  const running = useRef(new Set<string>());
  return useCallback((key, work) => {
    if (running.current.has(key)) return;
    running.current.add(key);
    void work().finally(() => running.current.delete(key));
  }, []);
}

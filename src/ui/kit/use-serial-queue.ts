import { useCallback, useRef } from 'react';
import { underWayUntil } from './request';

/** Does some work when all that was asked for before it has been done, however that ended. */
export type InTurn = <Result>(work: () => Promise<Result>) => Promise<Result>;

/** Does things one after another, in the order in which they are asked for: what is said last is what stands. */
export function useSerialQueue(): InTurn {
  const last = useRef<Promise<unknown>>(Promise.resolve());
  return useCallback((work) => {
    const before = last.current;
    const own = underWayUntil(() => before.then(work));
    last.current = own.catch(() => undefined);
    return own;
  }, []);
}

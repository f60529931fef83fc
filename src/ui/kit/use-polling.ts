import { useEffect, useEffectEvent } from 'react';

/**
 * Looks again and again, the next time only when the last look has been answered; an unanswered look
 * is passed over.
 *
 * @param everyMs how long to wait between two looks
 * @param isOn whether to look at all
 */
export function usePolling(look: () => Promise<unknown>, everyMs: number, isOn = true): void {
  const lookNow = useEffectEvent(look);
  useEffect(() => {
    if (!isOn) return undefined;
    let timer: ReturnType<typeof setTimeout>;
    let isGone = false;
    const wait = () => {
      timer = setTimeout(() => {
        const goOn = () => {
          if (!isGone) wait();
        };
        lookNow().then(goOn, goOn);
      }, everyMs);
    };
    wait();
    return () => {
      isGone = true;
      clearTimeout(timer);
    };
  }, [everyMs, isOn]);
}

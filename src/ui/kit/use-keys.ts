import { nearest } from './event-target';
import { useEffect, useEffectEvent } from 'react';
import { unlessScanned } from '../lib/not-scanned';

const TYPED_INTO = 'input, select, textarea, dialog';

/**
 * Has keys do something wherever nobody types; a sticker's code that is scanned does nothing of it.
 *
 * @param meaningOf what a key does as things stand; null for nothing. It is asked when the key is pressed, and
 *   once more when it is done.
 * @param except where keys are somebody else's
 */
export function useKeys(
  meaningOf: (event: KeyboardEvent) => (() => void) | null,
  except = TYPED_INTO,
): void {
  const meaningNow = useEffectEvent(meaningOf);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (nearest(event, except)) return;
      if (event.ctrlKey || event.metaKey) return;
      if (meaningNow(event)) event.preventDefault();
      // A key that means nothing here may still be one of a scanned code.
      unlessScanned(event, () => meaningNow(event)?.());
    };
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  }, [except]);
}

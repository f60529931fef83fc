import { useState } from 'react';
import { failureText } from './request';

/** Work that may fail, one piece at a time: what went wrong the last time, and whether it is under way. */
export interface Trying {
  message: string | null;
  isBusy: boolean;
  /** Does the work; a failure becomes the message, in words. Resolves to whether it was done. */
  attempt: (work: () => Promise<void>) => Promise<boolean>;
}

export function useTrying(): Trying {
  const [message, setMessage] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(false);
  const attempt = async (work: () => Promise<void>) => {
    setMessage(null);
    setBusy(true);
    try {
      await work();
      return true;
    } catch (error) {
      setMessage(failureText(error));
      return false;
    } finally {
      setBusy(false);
    }
  };
  return { message, isBusy, attempt };
}

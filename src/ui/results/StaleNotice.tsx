import { useEffect, useRef } from 'react';
import { callApi } from '../kit/request';
import { usePolling } from '../kit/use-polling';

interface StaleNoticeProps {
  studyId: string;
  reference: string | null;
  /** The parts of the results that are being made anew. */
  parts: readonly string[];
}

const LOOK_AGAIN_MS = 400;
const ENDS = ['change', 'focusout'] as const;

/** Says that newer results are being made, and shows them when they are there. */
export function StaleNotice({ studyId, reference, parts }: StaleNoticeProps) {
  const query = new URLSearchParams({
    parts: parts.join(','),
    ...(reference !== null && { ref: reference }),
  });
  const isLeaving = useRef(false);
  const isHalfTyped = useRef(false);
  useEffect(() => {
    // Somebody who follows a link is not brought back.
    const leave = () => {
      isLeaving.current = true;
    };
    const type = () => {
      isHalfTyped.current = true;
    };
    const enter = () => {
      isHalfTyped.current = false;
    };
    window.addEventListener('beforeunload', leave);
    // A field is changed when what was typed is entered: by Enter, or by leaving it.
    document.addEventListener('input', type);
    for (const end of ENDS) document.addEventListener(end, enter);
    return () => {
      window.removeEventListener('beforeunload', leave);
      document.removeEventListener('input', type);
      for (const end of ENDS) document.removeEventListener(end, enter);
    };
  }, []);
  usePolling(async () => {
    const address = `/studies/${studyId}/results?${query.toString()}`;
    const { stale } = await callApi<{ stale: string[] }>('GET', address);
    // What somebody has opened to read stays open, and what is half typed is not lost: the page is
    // read again after that.
    const isReading = document.querySelector('dialog[open], [data-drawer]') !== null;
    if (stale.length > 0 || isLeaving.current || isReading || isHalfTyped.current) return;
    location.reload();
  }, LOOK_AGAIN_MS);
  return (
    <p role="status" className="mb-2 text-xs text-warn" data-stale-results="">
      Evidence was added since: these results are being refreshed.
    </p>
  );
}

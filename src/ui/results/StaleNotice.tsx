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

/** Says that newer results are being made, and shows them when they are there. */
export function StaleNotice({ studyId, reference, parts }: StaleNoticeProps) {
  const query = new URLSearchParams({
    parts: parts.join(','),
    ...(reference !== null && { ref: reference }),
  });
  const isLeaving = useRef(false);
  useEffect(() => {
    // Somebody who follows a link is not brought back.
    const leave = () => {
      isLeaving.current = true;
    };
    window.addEventListener('beforeunload', leave);
    return () => window.removeEventListener('beforeunload', leave);
  }, []);
  usePolling(async () => {
    const address = `/studies/${studyId}/results?${query.toString()}`;
    const { stale } = await callApi<{ stale: string[] }>('GET', address);
    // What somebody has opened to read stays open: the page is read again after it is closed.
    const isReading = document.querySelector('dialog[open], [data-drawer]') !== null;
    if (stale.length === 0 && !isLeaving.current && !isReading) location.reload();
  }, LOOK_AGAIN_MS);
  return (
    <p role="status" className="mb-2 text-xs text-warn" data-stale-results="">
      Evidence was added since: these results are being refreshed.
    </p>
  );
}

import { useEffect } from 'react';
import { callApi } from '../lib/api';

interface StaleNoticeProps {
  studyId: string;
  reference: string | null;
  /** The parts of the results that are being made anew. */
  parts: readonly string[];
}

const LOOK_AGAIN_MS = 400;

/** Says that newer results are being made, and shows them when they are there. */
export function StaleNotice({ studyId, reference, parts }: StaleNoticeProps) {
  const asked = parts.join(',');
  useEffect(() => {
    const query = new URLSearchParams({
      parts: asked,
      ...(reference !== null && { ref: reference }),
    });
    let isLeaving = false;
    // Somebody who follows a link is not brought back.
    const leave = () => {
      isLeaving = true;
    };
    window.addEventListener('beforeunload', leave);
    const timer = setInterval(() => {
      callApi<{ stale: string[] }>('GET', `/studies/${studyId}/results?${query.toString()}`).then(
        ({ stale }) => stale.length === 0 && !isLeaving && location.reload(),
        () => undefined,
      );
    }, LOOK_AGAIN_MS);
    return () => {
      clearInterval(timer);
      window.removeEventListener('beforeunload', leave);
    };
  }, [studyId, reference, asked]);
  return (
    <p role="status" className="mb-2 text-xs text-warn" data-stale-results="">
      Evidence was added since: these results are being refreshed.
    </p>
  );
}

import { useEffect } from 'react';
import { callApi } from '../lib/api';

interface StaleNoticeProps {
  studyId: string;
  reference: string | null;
}

const LOOK_AGAIN_MS = 400;

/** Says that newer results are being made, and shows them when they are there. */
export function StaleNotice({ studyId, reference }: StaleNoticeProps) {
  useEffect(() => {
    const query = reference === null ? '' : `?ref=${encodeURIComponent(reference)}`;
    let isLeaving = false;
    // Somebody who follows a link is not brought back.
    const leave = () => {
      isLeaving = true;
    };
    window.addEventListener('beforeunload', leave);
    const timer = setInterval(() => {
      callApi<{ isStale: boolean }>('GET', `/studies/${studyId}/results/pairs${query}`).then(
        ({ isStale }) => !isStale && !isLeaving && location.reload(),
        () => undefined,
      );
    }, LOOK_AGAIN_MS);
    return () => {
      clearInterval(timer);
      window.removeEventListener('beforeunload', leave);
    };
  }, [studyId, reference]);
  return (
    <p role="status" className="mb-2 text-xs text-warn">
      Evidence was added since: these results are being refreshed.
    </p>
  );
}

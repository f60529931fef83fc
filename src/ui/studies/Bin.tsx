import { useState } from 'react';
import type { BinnedStudy } from '../../server/study/studies';
import { Failure, Line } from '../access/fields';
import { callApi } from '../kit/request';
import { useTrying } from '../kit/use-trying';
import { counted, shortTime } from '../lib/format';

/** Studies that were deleted, each to be brought back until its time is over. */
export function Bin({ studies }: { studies: readonly BinnedStudy[] }) {
  const [back, setBack] = useState<ReadonlySet<string>>(new Set());
  const { message, attempt } = useTrying();
  const bring = ({ study_id }: BinnedStudy) =>
    attempt(async () => {
      await callApi('POST', `/studies/${study_id}`, { action: 'restore' });
      setBack((known) => new Set(known).add(study_id));
    });
  return (
    <>
      <ul>
        {studies.map((study) => (
          <Line key={study.study_id}>
            <span className="min-w-0 flex-1 basis-60">
              {back.has(study.study_id) ? (
                <a href={`/studies/${study.study_id}/question`}>{study.title}</a>
              ) : (
                study.title
              )}
              <span className="block text-2xs text-ink-2">
                deleted {shortTime(study.deleted_at)} · gone for good in{' '}
                {study.days_left < 1 ? 'less than a day' : counted(study.days_left, 'day')}
              </span>
            </span>
            {back.has(study.study_id) ? (
              <span role="status">It is back.</span>
            ) : (
              <button
                type="button"
                className="action"
                aria-label={`Bring ${study.title} back`}
                onClick={() => void bring(study)}
              >
                Bring it back
              </button>
            )}
          </Line>
        ))}
      </ul>
      <Failure message={message} />
    </>
  );
}

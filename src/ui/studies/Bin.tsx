import { useState } from 'react';
import type { Deletion } from '../../contract/deletions';
import type { BinnedStudy } from '../../contract/studies';
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
              <span role="status">Restored.</span>
            ) : (
              <button
                type="button"
                className="action"
                aria-label={`Restore ${study.title}`}
                onClick={() => void bring(study)}
              >
                Restore
              </button>
            )}
          </Line>
        ))}
      </ul>
      <Failure message={message} />
    </>
  );
}

/** Prints, parts, incidents and photos that were deleted from studies: each can be restored. */
export function DeletedRows({ deletions }: { deletions: readonly Deletion[] }) {
  const [back, setBack] = useState<ReadonlySet<string>>(new Set());
  const { message, attempt } = useTrying();
  const restore = ({ study_id, deletion_id }: Deletion) =>
    attempt(async () => {
      await callApi('POST', `/studies/${study_id}/deletions/${deletion_id}`, { action: 'restore' });
      setBack((known) => new Set(known).add(deletion_id));
    });
  return (
    <>
      <ul>
        {deletions.map((one) => (
          <Line key={one.deletion_id}>
            <span className="min-w-0 flex-1 basis-60">
              {one.title}
              <span className="block text-2xs text-ink-2">
                <a href={`/studies/${one.study_id}/runs`}>{one.study}</a> · deleted{' '}
                {shortTime(one.at)}
                {one.who && ` by ${one.who}`} · gone for good in{' '}
                {one.days_left < 1 ? 'less than a day' : counted(one.days_left, 'day')} · with{' '}
                {one.counts.map(({ rows, title }) => `${rows} ${title}`).join(', ')}
              </span>
            </span>
            {back.has(one.deletion_id) ? (
              <span role="status">Restored.</span>
            ) : (
              <button
                type="button"
                className="action"
                aria-label={`Restore ${one.title}`}
                onClick={() => void restore(one)}
              >
                Restore
              </button>
            )}
          </Line>
        ))}
      </ul>
      <Failure message={message} />
    </>
  );
}

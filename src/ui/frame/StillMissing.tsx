import { Fragment } from 'react';
import { stepState, type StationKey } from '../../core/answers/checklist';
import { stepInWords } from '../../core/text/phrasing';
import type { StudyProgress } from '../../contract/studies';
import { useProgress } from './use-progress';

interface StillMissingProps {
  studyId: string;
  progress: StudyProgress;
  station: StationKey;
}

/** What is missing at a station where something has not been begun, each with a link to its field. */
export function StillMissing({ studyId, progress, station }: StillMissingProps) {
  const { steps } = useProgress(studyId, progress);
  const missing = steps.filter(
    (step) => step.station === station && step.done === 0 && stepState(step) === 'open',
  );
  if (missing.length === 0) return null;
  return (
    <p className="mb-2 text-xs text-ink-2">
      Missing here:{' '}
      {missing.map((step, at) => (
        <Fragment key={step.key}>
          {at > 0 && ' · '}
          <a
            className="inline-block py-[3px] underline"
            href={`/studies/${studyId}/${stepInWords(step).at}`}
          >
            {stepInWords(step).todo}
          </a>
        </Fragment>
      ))}
    </p>
  );
}

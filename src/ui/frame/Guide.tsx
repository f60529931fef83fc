import { useState } from 'react';
import { GUIDE, type GuideKey } from '../../core/answers/checklist';
import { guideInWords } from '../../core/text/phrasing';
import type { StudyProgress } from '../../contract/studies';
import { callApi, failureText } from '../kit/request';
import { useOnce } from '../kit/use-once';
import { useRemembered } from '../lib/remembered';
import { useProgress } from './use-progress';

interface GuideProps {
  studyId: string;
  progress: StudyProgress;
  /** The address of the page that it stands on. */
  path: string;
}

/** The guided first study: the next of its ten steps, with what to do and why. It can be hidden and shown again. */
export function Guide({ studyId, progress, path }: GuideProps) {
  const { guide } = useProgress(studyId, progress);
  const [hidden, hide] = useRemembered(`vergleich:guide-hidden:${studyId}`);
  if (guide === null) return null;
  const next = GUIDE.find((key) => !guide[key]);
  const isHidden = hidden !== '';
  return (
    <section
      aria-label="Guide to the practice study"
      className="mb-3 sheet border-plum-line bg-plum-soft px-4 py-3"
    >
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
        <h2 className="font-semibold">
          {next === undefined
            ? 'Practice study: all ten steps are done'
            : `Practice study, step ${GUIDE.indexOf(next) + 1} of ${GUIDE.length}: ${guideInWords(next).title}`}
        </h2>
        <StepDots guide={guide} next={next} />
        <button
          type="button"
          className="ml-auto action"
          aria-expanded={!isHidden}
          onClick={() => hide(isHidden ? '' : 'hidden')}
        >
          {isHidden ? 'Show guide' : 'Hide guide'}
        </button>
      </div>
      {!isHidden &&
        (next === undefined ? (
          <p className="mt-1">
            The study is archived. <a href="/studies?do=new">Create your own study</a>, or open{' '}
            <a href="/studies">Studies</a>.
          </p>
        ) : (
          <NextStep key={next} studyId={studyId} step={next} path={path} />
        ))}
    </section>
  );
}

interface StepDotsProps {
  guide: Record<GuideKey, boolean>;
  next: GuideKey | undefined;
}

function StepDots({ guide, next }: StepDotsProps) {
  const done = GUIDE.filter((key) => guide[key]).length;
  const fillOf = (key: GuideKey) =>
    guide[key] ? 'bg-plum' : key === next ? 'bg-plum-line' : 'bg-sheet';
  return (
    <span role="img" aria-label={`${done} of ${GUIDE.length} steps done`} className="flex gap-1">
      {GUIDE.map((key) => (
        <span key={key} className={`size-2.5 rounded-full border border-plum ${fillOf(key)}`} />
      ))}
    </span>
  );
}

interface NextStepProps {
  studyId: string;
  step: GuideKey;
  /** The address of the page that it stands on. */
  path: string;
}

function NextStep({ studyId, step, path }: NextStepProps) {
  const { todo, why, at } = guideInWords(step);
  const [page = '', field] = at.split('#');
  const isHere = path === `/studies/${studyId}/${page}`;
  return (
    <>
      <p className="mt-1 max-w-[90ch]">{todo}</p>
      <p className="max-w-[90ch] text-ink-2">{why}</p>
      {step === 'close' ? (
        <ArchiveButton studyId={studyId} />
      ) : (
        (!isHere || field !== undefined) && (
          <p className="mt-2">
            <a className="action action-main" href={`/studies/${studyId}/${at}`}>
              {isHere ? 'Show the field' : 'Go there'}
            </a>
          </p>
        )
      )}
    </>
  );
}

function ArchiveButton({ studyId }: { studyId: string }) {
  const [message, setMessage] = useState<string | null>(null);
  const once = useOnce();
  const archive = async () => {
    try {
      await callApi('PUT', `/studies/${studyId}/shelf`, { isArchived: true });
    } catch (error) {
      setMessage(failureText(error, 'The study was not archived.'));
    }
  };
  return (
    <p className="mt-2 flex flex-wrap items-center gap-3">
      <button type="button" className="action action-main" onClick={() => once('archive', archive)}>
        Archive practice study
      </button>
      {message !== null && (
        <span role="alert" className="text-warn">
          {message}
        </span>
      )}
    </p>
  );
}

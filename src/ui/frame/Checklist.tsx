import { stepState, type Step, type StepState } from '../../core/answers/checklist';
import { stepInWords } from '../../core/text/phrasing';
import type { Progress } from '../../contract/studies';

export const CHECKLIST_ID = 'checklist';

const SIGNS: Readonly<Record<StepState, { sign: string; word: string; look: string }>> = {
  done: { sign: '✓', word: 'done', look: 'text-plum' },
  open: { sign: '○', word: 'missing', look: 'text-ink' },
  later: { sign: '·', word: 'comes later', look: 'text-ink-2' },
};

interface ChecklistProps {
  studyId: string;
  steps: readonly Step[];
  stations: readonly Progress[];
}

/** A study's steps from its question to its report. What is missing links to where it is entered. */
export function Checklist({ studyId, steps, stations }: ChecklistProps) {
  const done = steps.filter((step) => stepState(step) === 'done').length;
  const next = steps.find((step) => stepState(step) === 'open');
  return (
    <div
      id={CHECKLIST_ID}
      popover="auto"
      className="m-auto max-h-[90dvh] w-[min(30rem,calc(100vw-1.5rem))] sheet p-4 text-ink shadow-lg"
    >
      <div className="flex items-baseline justify-between gap-3">
        <h2 className="font-semibold">Checklist</h2>
        <span className="text-xs text-ink-2">{`${done} of ${steps.length} done`}</span>
        <button
          type="button"
          className="ml-auto action"
          popoverTarget={CHECKLIST_ID}
          popoverTargetAction="hide"
        >
          Close
        </button>
      </div>
      {next && (
        <p className="mt-1 text-xs text-ink-2">
          Next:{' '}
          <a
            className="inline-block py-[3px] underline"
            href={`/studies/${studyId}/${stepInWords(next).at}`}
          >
            {stepInWords(next).todo}
          </a>
        </p>
      )}
      <dl className="mt-2 grid grid-cols-[5.5rem_1fr] gap-y-1">
        {stations.map(({ key, title }) => (
          <div
            key={key}
            className="col-span-2 grid grid-cols-subgrid border-t border-line-soft pt-1"
          >
            <dt className="text-xs text-ink-2">{title}</dt>
            {steps
              .filter(({ station }) => station === key)
              .map((step) => (
                <StepLine key={step.key} studyId={studyId} step={step} />
              ))}
          </div>
        ))}
      </dl>
    </div>
  );
}

function StepLine({ studyId, step }: { studyId: string; step: Step }) {
  const state = stepState(step);
  const { sign, word, look } = SIGNS[state];
  const { name, todo, at } = stepInWords(step);
  const count = step.due > 1 ? `${step.done} of ${step.due}` : '';
  return (
    <dd className="col-start-2 flex items-baseline gap-2">
      <span className={`w-3 shrink-0 ${look}`} aria-hidden="true">
        {sign}
      </span>
      <span className="sr-only">{word}:</span>
      {state === 'open' ? (
        <a className="inline-block py-[3px] underline" href={`/studies/${studyId}/${at}`}>
          {todo}
        </a>
      ) : (
        name
      )}
      {count !== '' && <span className="ml-auto font-mono text-xs text-ink-2">{count}</span>}
    </dd>
  );
}

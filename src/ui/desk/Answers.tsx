import { useEffect, useState } from 'react';
import type { DeskLine, StudyAnswer } from '../../contract/desk';
import { callApi, failureText } from '../kit/request';
import { VernierTicks } from '../marks/VernierTicks';

/** So many answers are asked for at once. */
const AT_ONCE = 2;

/** What each study has found so far, one or two sentences each. */
export function Answers({ studies }: { studies: readonly DeskLine[] }) {
  const [answers, setAnswers] = useState<ReadonlyMap<string, StudyAnswer | string>>(new Map());
  useEffect(() => {
    let isGone = false;
    const waiting = studies.map(({ study_id }) => study_id);
    const work = async () => {
      for (let id = waiting.shift(); id !== undefined && !isGone; id = waiting.shift()) {
        const own = id;
        const answer = await callApi<StudyAnswer>('GET', `/studies/${own}/answer`).catch(
          (error: unknown) => failureText(error, 'The answer could not be read.'),
        );
        if (!isGone) setAnswers((now) => new Map(now).set(own, answer));
      }
    };
    for (let at = 0; at < AT_ONCE; at += 1) void work();
    return () => {
      isGone = true;
    };
  }, [studies]);
  return (
    <ul>
      {studies.map((study) => (
        <AnswerLine key={study.study_id} study={study} answer={answers.get(study.study_id)} />
      ))}
    </ul>
  );
}

interface AnswerLineProps {
  study: DeskLine;
  /** The answer, or why there is none; undefined while it is looked up. */
  answer: StudyAnswer | string | undefined;
}

function AnswerLine({ study, answer }: AnswerLineProps) {
  const { study_id, title, progress, isPublished } = study;
  const runs = progress.find(({ key }) => key === 'runs');
  return (
    <li className="border-b border-line-soft px-3 py-2 last:border-b-0">
      <a
        href={`/studies/${study_id}/results/glance`}
        className="font-semibold no-underline hover:underline"
      >
        {title}
      </a>
      <p className="min-h-5" aria-busy={answer === undefined}>
        {answer === undefined ? (
          <span className="text-ink-2">Looking up the answer …</span>
        ) : typeof answer === 'string' ? (
          <span className="text-warn">{answer}</span>
        ) : (
          <>
            {answer.text}
            {answer.open !== null && (
              <span className="text-ink-2"> Too close to call: {answer.open}.</span>
            )}
            {answer.isStale && <span className="text-ink-2"> Newer evidence is being added.</span>}
          </>
        )}
      </p>
      <p className="mt-1 flex flex-wrap items-center gap-2 text-2xs text-ink-2">
        {runs && (
          <>
            <VernierTicks done={runs.done} due={runs.due} width={84} />
            <span>
              {runs.done} of {runs.due} prints
            </span>
          </>
        )}
        {isPublished && (
          <span className="rounded-full border border-plum bg-plum-soft px-2 text-plum">
            report published
          </span>
        )}
      </p>
    </li>
  );
}

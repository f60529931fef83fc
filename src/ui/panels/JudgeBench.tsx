import { useEffect, useRef, useState, type SetStateAction, type Dispatch } from 'react';
import type { Judging } from '../../contract/panels';
import { ApiError, callApi, failureText } from '../kit/request';
import { useKeys } from '../kit/use-keys';
import { useOnce } from '../kit/use-once';
import { useTrying } from '../kit/use-trying';
import { VernierTicks } from '../marks/VernierTicks';
import { JudgedPictures } from './JudgedPictures';

/** What stands for "no difference" in an answer. */
const NO_DIFFERENCE = 'none';

/** How the question is put, under the words of the panel. */
const HOW: Record<Judging['kind'], string> = {
  paired: 'Choose the one, or say that you see no difference.',
  triangle: 'Two are alike, one is not: choose the one that is not. If you are not sure, guess.',
  guess: 'Choose the one. If you are not sure, guess.',
};

/** A panel as its judges see it, on a phone: one question a page. */
export function JudgeBench({ link }: { link: string }) {
  const [judging, setJudging] = useState<Judging | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const { message, isBusy, attempt } = useTrying();
  const base = `/judging/${link}`;
  useEffect(() => {
    callApi<Judging>('GET', base).then(setJudging, (error: unknown) =>
      setFault(error instanceof ApiError ? error.message : failureText(error)),
    );
  }, [base]);

  const once = useOnce();
  const answer = (chosen: string) => {
    const question = judging?.question;
    if (!question) return;
    // A finger that comes down twice answers one question.
    once('answer', () =>
      attempt(async () => {
        setJudging(
          await callApi<Judging>('PUT', base, { question: question.number, answer: chosen }),
        );
        window.scrollTo({ top: 0 });
      }),
    );
  };
  const seeQuestion = (number: number) =>
    attempt(async () => setJudging(await callApi<Judging>('GET', `${base}?question=${number}`)));
  const begin = (said: object) =>
    attempt(async () => setJudging(await callApi<Judging>('POST', base, said)));
  const stop = () => attempt(async () => setJudging(await callApi<Judging>('DELETE', base)));

  const question = judging?.question ?? null;
  // What has not been seen is not judged: a second tap that comes early answers nothing.
  const [shown, setShown] = useState<number | null>(null);
  const canAnswer =
    question !== null && (question.pictures.length === 0 || shown === question.number);
  useKeys((event) => {
    if (!question || event.altKey) return null;
    const code = question.codes[Number(event.key) - 1];
    if (canAnswer && /^[1-3]$/.test(event.key) && code !== undefined) return () => answer(code);
    if (canAnswer && event.key === '0' && judging?.kind === 'paired')
      return () => answer(NO_DIFFERENCE);
    if (event.key === 'Backspace' && question.number > 1) {
      return () => void seeQuestion(question.number - 1);
    }
    return null;
  });

  if (fault !== null) return <Said title="This link" text={fault} />;
  if (judging === null) return <p className="mt-[12vh] text-center text-ink-2">One moment …</p>;
  if (!question) {
    return <AroundQuestions judging={judging} isBusy={isBusy} begin={begin} message={message} />;
  }
  const { number, of, codes } = question;
  return (
    <Question
      number={number}
      of={of}
      judging={judging}
      question={question}
      codes={codes}
      setShown={setShown}
      isBusy={isBusy}
      canAnswer={canAnswer}
      answer={answer}
      message={message}
      seeQuestion={seeQuestion}
      stop={stop}
    />
  );
}

interface QuestionProps {
  number: number;
  of: number;
  judging: Judging;
  question: {
    number: number;
    of: number;
    codes: string[];
    pictures: string[];
    picture_shape: number | null;
    answer: string | null;
  };
  codes: string[];
  setShown: Dispatch<SetStateAction<number | null>>;
  isBusy: boolean;
  canAnswer: boolean;
  answer: (chosen: string) => void;
  message: string | null;
  seeQuestion: (number: number) => Promise<boolean>;
  stop: () => Promise<boolean>;
}

/** One question, with what is seen of it. */
function Question({
  number,
  of,
  judging,
  question,
  codes,
  setShown,
  isBusy,
  canAnswer,
  answer,
  message,
  seeQuestion,
  stop,
}: QuestionProps) {
  return (
    <section aria-labelledby="asked" className="grid gap-3">
      <header className="grid gap-0.5 text-ink-2">
        <p className="flex justify-between gap-3">
          <span>
            {number} of {of}
          </span>
          <span>
            {judging.wants_initials ? `you are ${judging.name}` : 'your name is not shown'}
          </span>
        </p>
        <VernierTicks done={number - 1} due={of} width={366} />
      </header>
      <Asked key={`asked-${number}`} text={judging.aspect} />
      <p className="text-ink-2">{HOW[judging.kind]}</p>
      {question.pictures.length > 0 ? (
        <JudgedPictures
          key={`seen-${number}`}
          pictures={question.pictures}
          codes={codes}
          shape={question.picture_shape}
          onShown={() => setShown(number)}
        />
      ) : (
        <p className="sheet p-3">
          Take the parts on {codes.slice(0, -1).join(', ')} and {codes.at(-1)} before you.
        </p>
      )}
      <div className={codes.length === 3 ? 'grid grid-cols-3 gap-2' : 'grid grid-cols-2 gap-2'}>
        {codes.map((code, at) => (
          <Choice
            key={code}
            isChosen={question.answer === code}
            isBusy={isBusy || !canAnswer}
            onChoose={() => answer(code)}
            hint={`${at + 1}`}
          >
            <span className="text-xl">{code}</span>
          </Choice>
        ))}
      </div>
      {judging.kind === 'paired' && (
        <Choice
          isChosen={question.answer === NO_DIFFERENCE}
          isBusy={isBusy || !canAnswer}
          onChoose={() => answer(NO_DIFFERENCE)}
          hint="0"
        >
          no difference that I can see
        </Choice>
      )}
      <Trouble message={message} />
      <p className="flex justify-between gap-3">
        <button
          type="button"
          className="min-h-11 px-1 text-ink-2 underline disabled:no-underline disabled:opacity-50"
          disabled={isBusy || number === 1}
          onClick={() => void seeQuestion(number - 1)}
        >
          ‹ back one
        </button>
        <button
          type="button"
          className="min-h-11 px-1 text-ink-2 underline"
          disabled={isBusy}
          onClick={() => void stop()}
        >
          Stop here; my answers count
        </button>
      </p>
    </section>
  );
}

interface AroundQuestionsProps {
  judging: Judging;
  isBusy: boolean;
  begin: (said: object) => Promise<boolean>;
  message: string | null;
}

/** Before the first question and after the last. */
function AroundQuestions({ judging, isBusy, begin, message }: AroundQuestionsProps) {
  return (
    <>
      {judging.state === 'new' && (
        <Begin judging={judging} isBusy={isBusy} onBegin={(said) => void begin(said)} />
      )}
      {judging.state === 'done' && (
        <Said
          title="That was all. Thank you."
          text="Your answers are saved. You can close this page."
        />
      )}
      {judging.state === 'closed' && (
        <Said title="This panel is closed." text="Your answers count. Thank you." />
      )}
      {judging.state === 'by card' && (
        <p className="text-lg">This panel is judged by card: use the link on your own card.</p>
      )}
      {judging.state === 'full' && (
        <Said
          title="All places are taken."
          text="This panel already has all the judges it needs. Thank you all the same."
        />
      )}
      {judging.state === 'stopped' && (
        <Said title="You have stopped. Thank you." text="Your answers count.">
          <button type="button" className="action" disabled={isBusy} onClick={() => void begin({})}>
            Go on after all
          </button>
        </Said>
      )}
      <Trouble message={message} />
    </>
  );
}

/** The question; it is read out as it comes. */
function Asked({ text }: { text: string }) {
  const heading = useRef<HTMLHeadingElement>(null);
  useEffect(() => heading.current?.focus({ preventScroll: true }), []);
  return (
    <h1 id="asked" ref={heading} tabIndex={-1} className="text-xl font-semibold outline-none">
      {text}
    </h1>
  );
}

interface ChoiceProps {
  isChosen: boolean;
  isBusy: boolean;
  onChoose: () => void;
  hint: string;
  children: React.ReactNode;
}

function Choice({ isChosen, isBusy, onChoose, hint, children }: ChoiceProps) {
  return (
    <button
      type="button"
      aria-pressed={isChosen}
      disabled={isBusy}
      onClick={onChoose}
      className="relative min-h-14 sheet px-2 font-semibold aria-pressed:border-plum aria-pressed:outline-2 aria-pressed:outline-plum"
    >
      {children}
      {isChosen && <span className="block text-2xs font-normal text-ink-2">so far</span>}
      <kbd className="absolute top-1 right-1 key hidden sm:inline">{hint}</kbd>
    </button>
  );
}

interface BeginProps {
  judging: Judging;
  isBusy: boolean;
  onBegin: (said: object) => void;
}

/** What a judge reads before the first question. */
function Begin({ judging, isBusy, onBegin }: BeginProps) {
  const [initials, setInitials] = useState('');
  const [place, setPlace] = useState(judging.free_places[0] ?? 1);
  const isOfParts = judging.shown_as === 'parts';
  return (
    <form
      className="mt-[6vh] grid gap-4 sheet p-4"
      onSubmit={(event) => {
        event.preventDefault();
        onBegin({
          ...(judging.wants_initials && { initials }),
          ...(isOfParts && { place }),
        });
      }}
    >
      <h1 className="text-xl font-semibold">{judging.aspect}</h1>
      <p>
        You see {judging.kind === 'triangle' ? 'three' : 'two'} at a time, under numbers that mean
        nothing. {HOW[judging.kind]}
      </p>
      <p className="text-ink-2">
        Take your time. There is no right or wrong opinion; you may go back one, and stop whenever
        you like.
        {judging.wants_initials ? '' : ' Your name is not shown.'}
      </p>
      {judging.wants_initials && (
        <label className="grid gap-1">
          your initials
          <input
            className="field"
            required
            maxLength={12}
            value={initials}
            autoComplete="off"
            onChange={(event) => setInitials(event.target.value)}
          />
        </label>
      )}
      {isOfParts && (
        <label className="grid gap-1">
          your place: its number is on the sheet before you
          <select
            className="field"
            value={place}
            onChange={(event) => setPlace(Number(event.target.value))}
          >
            {judging.free_places.map((one) => (
              <option key={one}>{one}</option>
            ))}
          </select>
        </label>
      )}
      <button type="submit" className="action min-h-12 action-main" disabled={isBusy}>
        Begin
      </button>
    </form>
  );
}

function Said({
  title,
  text,
  children,
}: {
  title: string;
  text: string;
  children?: React.ReactNode;
}) {
  return (
    <div className="mt-[8vh] grid justify-items-start gap-3 sheet p-4" role="status">
      <h1 className="text-xl font-semibold">{title}</h1>
      <p>{text}</p>
      {children}
    </div>
  );
}

const Trouble = ({ message }: { message: string | null }) =>
  message === null ? null : (
    <p role="alert" className="sheet border-plum p-3">
      {message} Your answer is not lost: choose it again.
    </p>
  );

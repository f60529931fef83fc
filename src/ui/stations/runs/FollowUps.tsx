import { useEffect, useState, type SetStateAction, type JSX, type Dispatch } from 'react';
import { v7 as uuid } from 'uuid';
import {
  CAUSES,
  DEFECTS,
  FOLLOW_UP_OUTCOMES,
  SUSPECTS,
} from '../../../core/model/study/catalogues';
import { inWords } from '../../../core/model/study/labels';
import type { ChainPrint, FollowUpsPage, ShownChain } from '../../../contract/runs';
import { readAgain } from '../../kit/leave';
import { callApi, failureText } from '../../kit/request';

/** Causes that were followed: a row of prints with what really differed between each two. */
export function FollowUps({ studyId, page }: { studyId: string; page: FollowUpsPage }) {
  return (
    <>
      <NewFollowUp studyId={studyId} page={page} />
      {page.chains.length === 0 && (
        <p className="mt-3 sheet p-4 text-ink-2">
          No cause was followed yet. Choose a print that went wrong above, change one thing, and
          print again.
        </p>
      )}
      {page.chains.map((chain, at) => (
        <ChainRow key={at} studyId={studyId} chain={chain} />
      ))}
    </>
  );
}

function ChainRow({ studyId, chain }: { studyId: string; chain: ShownChain }) {
  return (
    <section className="mt-3 sheet p-3" aria-label={`Followed from ${chain.first.name}`}>
      <ol className="flex flex-wrap items-stretch gap-y-3">
        <li className="flex">
          <PrintBox studyId={studyId} print={chain.first} />
        </li>
        {chain.steps.map(({ follow_up, after, changed, things }) => (
          <li key={follow_up.follow_up_id} className="flex items-stretch">
            <div className="flex w-64 flex-col justify-center px-3 text-xs">
              <span className="text-ink-2">
                suspected: {inWords(follow_up.suspect)}
                {follow_up.finding && `, for ${inWords(follow_up.finding)}`}
              </span>
              <span className="my-0.5 border-t border-ink-2" aria-hidden="true" />
              <b>{follow_up.changed}</b>
              <span className={things > 1 ? 'text-warn' : 'text-ink-2'}>
                {things > 1 && `${things} things changed at once: which it was is not known. `}
                {changed.length === 0 ? 'nothing that is written down differs' : changed.join('; ')}
              </span>
              <span>
                came of it: <b>{follow_up.outcome}</b>
                {follow_up.note && <span className="text-ink-2"> · {follow_up.note}</span>}
              </span>
            </div>
            <PrintBox studyId={studyId} print={after} />
          </li>
        ))}
      </ol>
    </section>
  );
}

const MARKS: Record<ChainPrint['outcome'], string> = {
  success: '○',
  rescued: '◐',
  failed: '●',
  aborted: '✕',
};

function PrintBox({ studyId, print }: { studyId: string; print: ChainPrint }) {
  return (
    <a
      href={`/studies/${studyId}/runs?open=${encodeURIComponent(print.print_id)}`}
      className="flex w-44 flex-col justify-center border border-line px-2 py-1.5 no-underline hover:border-plum"
    >
      <span>
        <span aria-hidden="true">{MARKS[print.outcome]} </span>
        <b>{print.outcome}</b>
      </span>
      <span className="text-xs text-ink-2">{print.name}</span>
      {print.at && <span className="font-mono text-2xs text-ink-2">{print.at.slice(0, 10)}</span>}
    </a>
  );
}

/** A print that is to follow another: what would be changed is told before it is started. */
function NewFollowUp({ studyId, page }: { studyId: string; page: FollowUpsPage }) {
  const [before, setBefore] = useState('');
  const [after, setAfter] = useState('');
  const [found, setFound] = useState<{ changed: string[]; things: number } | null>(null);
  const [message, setMessage] = useState<string | null>(null);
  const isPlanned = after.startsWith('planned:');
  const incident = page.prints.find((one) => one.print_id === before)?.incident ?? null;
  useChanged({ before, after, studyId, setFound, setMessage });
  const add = async (form: FormData) => {
    setMessage(null);
    const said = (name: string) => {
      const value = form.get(name);
      return typeof value === 'string' && value.trim() !== '' ? value.trim() : null;
    };
    const cause = said('cause');
    try {
      await callApi('POST', `/studies/${studyId}/follow-ups`, {
        follow_up: {
          follow_up_id: uuid(),
          print_before: before,
          print_after: after,
          suspect: said('suspect'),
          changed: said('changed'),
          outcome: said('outcome'),
          finding: said('finding'),
          note: said('note'),
        },
        ...(incident && cause && { booking: { incident_id: incident.incident_id, cause } }),
      });
      void readAgain();
    } catch (error) {
      setMessage(failureText(error));
    }
  };
  const options = (words: readonly string[], none?: string) => (
    <>
      {none !== undefined && <option value="">{none}</option>}
      {words.map((word) => (
        <option key={word} value={word}>
          {inWords(word)}
        </option>
      ))}
    </>
  );
  return (
    <form
      aria-label="Follow a cause"
      className="grid gap-x-3 gap-y-2 sheet p-3 text-xs text-ink-2 md:grid-cols-4"
      onSubmit={(event) => {
        event.preventDefault();
        void add(new FormData(event.currentTarget));
      }}
    >
      <PrintBefore before={before} setFound={setFound} setBefore={setBefore} page={page} />
      <PrintAfter after={after} setFound={setFound} setAfter={setAfter} page={page} />
      {found && (
        <p
          role="status"
          className={
            'md:col-span-4 ' +
            `${found.things > 1 ? 'rounded-sm border border-line bg-warn-soft p-2 text-warn' : ''}`
          }
        >
          {found.things > 1 && (
            <b>
              {found.things} things are changed at once: the result will not show which one
              mattered.{' '}
            </b>
          )}
          {found.changed.length === 0
            ? 'Nothing that is written down differs.'
            : `Differs: ${found.changed.join('; ')}.`}
        </p>
      )}
      {!isPlanned && after !== '' && <CauseFields options={options} incident={incident} />}
      {message && (
        <p role="alert" className="text-warn md:col-span-4">
          {message}
        </p>
      )}
    </form>
  );
}

interface ChangedGiven {
  before: string;
  after: string;
  studyId: string;
  setFound: Dispatch<SetStateAction<{ changed: string[]; things: number } | null>>;
  setMessage: Dispatch<SetStateAction<string | null>>;
}

/** Asks what was changed between the two. */
function useChanged({ before, after, studyId, setFound, setMessage }: ChangedGiven) {
  useEffect(() => {
    if (before === '' || after === '') return undefined;
    let isGone = false;
    const query = `before=${encodeURIComponent(before)}&after=${encodeURIComponent(after)}`;
    callApi<{ changed: string[]; things: number }>(
      'GET',
      `/studies/${studyId}/follow-ups/changed?${query}`,
    ).then(
      (answer) => {
        if (!isGone) setFound(answer);
      },
      (error: unknown) => setMessage(failureText(error)),
    );
    return () => {
      isGone = true;
    };
  }, [studyId, before, after, setFound, setMessage]);
}

interface CauseFieldsProps {
  options: (words: readonly string[], none?: string) => JSX.Element;
  incident: { incident_id: string; cause: string } | null;
}

/** What is suspected, and what came of it. */
function CauseFields({ options, incident }: CauseFieldsProps) {
  return (
    <>
      <label>
        suspected
        <select className="field" name="suspect" required>
          {options(SUSPECTS)}
        </select>
      </label>
      <label className="md:col-span-2">
        the one thing that was changed
        <input className="field" name="changed" required maxLength={2000} />
      </label>
      <label>
        what came of it
        <select className="field" name="outcome" required>
          {options(FOLLOW_UP_OUTCOMES)}
        </select>
      </label>
      <label>
        the defect, where it was one
        <select className="field" name="finding">
          {options(DEFECTS, 'none')}
        </select>
      </label>
      <label className="md:col-span-2">
        note
        <input className="field" name="note" maxLength={2000} />
      </label>
      {incident && (
        <label>
          book the incident on
          <select className="field" name="cause" defaultValue={incident.cause}>
            {options(CAUSES)}
          </select>
        </label>
      )}
      <p className="md:col-span-4">
        <button className="action action-main">Save</button>
      </p>
    </>
  );
}

interface PrintBeforeProps {
  before: string;
  setFound: Dispatch<SetStateAction<{ changed: string[]; things: number } | null>>;
  setBefore: Dispatch<SetStateAction<string>>;
  page: FollowUpsPage;
}

/** The print that went wrong. */
function PrintBefore({ before, setFound, setBefore, page }: PrintBeforeProps) {
  return (
    <label className="md:col-span-2">
      the print before, that went wrong
      <select
        className="field"
        required
        value={before}
        onChange={(event) => {
          setFound(null);
          setBefore(event.target.value);
        }}
      >
        <option value="">choose …</option>
        {page.prints.map((one) => (
          <option key={one.print_id} value={one.print_id}>
            {one.name}, {one.outcome}
          </option>
        ))}
      </select>
    </label>
  );
}

interface PrintAfterProps {
  after: string;
  setFound: Dispatch<SetStateAction<{ changed: string[]; things: number } | null>>;
  setAfter: Dispatch<SetStateAction<string>>;
  page: FollowUpsPage;
}

/** The print that shows whether it helped. */
function PrintAfter({ after, setFound, setAfter, page }: PrintAfterProps) {
  return (
    <label className="md:col-span-2">
      the print after, printed or planned
      <select
        className="field"
        required
        value={after}
        onChange={(event) => {
          setFound(null);
          setAfter(event.target.value);
        }}
      >
        <option value="">choose …</option>
        <optgroup label="planned: what would be changed">
          {page.planned.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </optgroup>
        <optgroup label="printed">
          {page.prints.map((one) => (
            <option key={one.print_id} value={one.print_id}>
              {one.name}, {one.outcome}
            </option>
          ))}
        </optgroup>
      </select>
    </label>
  );
}

import { useState } from 'react';
import type { RevisionSeen } from '../../contract/report';
import { usePolling } from '../kit/use-polling';
import { ChangesPanel, PublishPanel, WithdrawPanel } from './RevisionPanels';
import type { Report } from './use-report';
import { readAgain } from '../kit/leave';
import { callApi } from '../kit/request';
import { useTrying } from '../kit/use-trying';

interface RevisionsProps {
  studyId: string;
  studyName: string;
  report: Report;
}

const LOOK_EVERY_MS = 700;
const dayOf = (iso: string): string =>
  new Date(iso).toLocaleDateString('en-GB', { day: 'numeric', month: 'long', year: 'numeric' });

/** The frozen revisions: made, published, withdrawn, compared, taken away in every form. */
export function Revisions({ studyId, studyName, report }: RevisionsProps) {
  const { revisions, address } = report.page;
  const isMaking = revisions.some(({ state }) => state === 'waiting' || state === 'making');
  const [isFreezing, setFreezing] = useState(false);
  usePolling(report.refresh, LOOK_EVERY_MS, isMaking);
  const freeze = async () => {
    setFreezing(true);
    await report.freeze();
    setFreezing(false);
  };
  return (
    <section className="mb-3 sheet px-3 py-2" aria-labelledby="revisions">
      <div className="flex items-center justify-between gap-2">
        <h2 id="revisions" className="font-semibold">
          Revisions
        </h2>
        <button
          type="button"
          className="action action-main"
          disabled={isMaking || isFreezing}
          onClick={() => void freeze()}
        >
          Freeze report {(revisions[0]?.number ?? 0) + 1}
        </button>
      </div>
      {revisions.length === 0 && (
        <p className="mt-1 text-xs text-ink-2">
          Saves the present words, figures, pictures and data under a number. It is private until it
          is published.
        </p>
      )}
      <ul>
        {revisions.map((revision) => (
          <li
            key={revision.number}
            className="border-t border-line-soft py-2"
            data-revision={revision.number}
          >
            <RevisionLine
              studyId={studyId}
              studyName={studyName}
              report={report}
              revision={revision}
              others={revisions}
            />
          </li>
        ))}
      </ul>
      {address?.name != null && (
        <p className="mt-1 text-xs">
          Open to all at <a href={`/r/${address.name}`}>{`/r/${address.name}`}</a>
        </p>
      )}
      {address && revisions.some(({ published_at }) => published_at !== null) && (
        <p className="text-xs text-ink-2">
          By its secret address:{' '}
          <a href={`/r/${address.secret}`}>{`/r/${address.secret.slice(0, 6)}…`}</a>
        </p>
      )}
    </section>
  );
}

interface LineProps extends RevisionsProps {
  revision: RevisionSeen;
  others: readonly RevisionSeen[];
}

function RevisionLine({ studyId, studyName, report, revision, others }: LineProps) {
  const { number, state } = revision;
  const [open, setOpen] = useState<'publish' | 'withdraw' | 'changes' | null>(null);
  const files = `/studies/${studyId}/report/${number}`;
  const { attempt } = useTrying();
  const before = others.filter((one) => one.state === 'ready' && one.number < number);
  return (
    <>
      <p className="flex flex-wrap items-baseline gap-2">
        <b>Report {number}</b>
        <span className="text-xs text-ink-2">
          {revision.frozen_at === null ? 'asked for' : 'frozen'}{' '}
          {dayOf(revision.frozen_at ?? revision.asked_at)}
          {revision.who !== null && ` by ${revision.who}`}
        </span>
        <State revision={revision} />
      </p>
      {(state === 'waiting' || state === 'making') && (
        <p role="status" className="mt-1 text-xs">
          <progress
            className="w-full"
            max={1}
            value={revision.share}
            aria-label={`Report ${number} is being made`}
          />
          {revision.step ?? 'waiting for its turn'} …
        </p>
      )}
      {state === 'failed' && (
        <NotMade revision={revision} attempt={attempt} studyId={studyId} number={number} />
      )}
      {revision.withdrawn_because !== null && (
        <p className="mt-1 text-xs text-warn">Withdrawn: {revision.withdrawn_because}</p>
      )}
      {state === 'ready' && (
        <RevisionFiles
          files={files}
          studyName={studyName}
          number={number}
          revision={revision}
          studyId={studyId}
        />
      )}
      {revision.notes.map((note) => (
        <p key={note} className="text-xs text-warn">
          {note}
        </p>
      ))}
      <RevisionActions
        state={state}
        revision={revision}
        setOpen={setOpen}
        report={report}
        number={number}
        before={before}
      />
      {open === 'publish' && (
        <PublishPanel
          report={report}
          number={number}
          studyName={studyName}
          onClose={() => setOpen(null)}
        />
      )}
      {open === 'withdraw' && (
        <WithdrawPanel report={report} number={number} onClose={() => setOpen(null)} />
      )}
      {open === 'changes' && (
        <ChangesPanel
          studyId={studyId}
          number={number}
          before={before}
          onClose={() => setOpen(null)}
        />
      )}
    </>
  );
}

interface RevisionActionsProps {
  state: RevisionSeen['state'];
  revision: RevisionSeen;
  setOpen: (panel: 'publish' | 'withdraw' | 'changes') => void;
  report: LineProps['report'];
  number: number;
  before: RevisionSeen[];
}

/** What can be done with a revision. */
function RevisionActions({
  state,
  revision,
  setOpen,
  report,
  number,
  before,
}: RevisionActionsProps) {
  return (
    <p className="mt-1 flex flex-wrap gap-1">
      {state === 'ready' && revision.withdrawn_at === null && (
        <button type="button" className="action" onClick={() => setOpen('publish')}>
          {revision.published_at === null ? 'Publish' : 'Address'}
        </button>
      )}
      {revision.published_at !== null && revision.withdrawn_at === null && (
        <button type="button" className="action" onClick={() => setOpen('withdraw')}>
          Withdraw
        </button>
      )}
      {revision.published_at === null && (
        <button type="button" className="action" onClick={() => void report.drop(number)}>
          {state === 'waiting' || state === 'making' ? 'Stop' : 'Delete'}
        </button>
      )}
      {before.length > 0 && state === 'ready' && (
        <button type="button" className="action" onClick={() => setOpen('changes')}>
          What changed
        </button>
      )}
    </p>
  );
}

interface RevisionFilesProps {
  files: string;
  studyName: string;
  number: number;
  revision: RevisionSeen;
  studyId: string;
}

/** The forms that a revision can be read and taken in. */
function RevisionFiles({ files, studyName, number, revision, studyId }: RevisionFilesProps) {
  return (
    <p className="mt-1 flex flex-wrap gap-x-3 text-xs underline [&>a]:inline-block [&>a]:min-h-[24px] [&>a]:min-w-[24px] [&>a]:leading-6">
      <a href={`${files}/`} target="_blank" rel="noreferrer">
        page
      </a>
      <a href={`${files}/report.zip`} download={`${studyName}-report-${number}.zip`}>
        zip
      </a>
      {!revision.notes.some((note) => note.startsWith('No PDF')) && (
        <a href={`${files}/report.pdf`} download={`${studyName}-report-${number}.pdf`}>
          PDF
        </a>
      )}
      <a href={`${files}/report.md`} download={`${studyName}-report-${number}.md`}>
        Markdown
      </a>
      <a href={`${files}/figures.json`} download>
        figures
      </a>
      <a href={`${files}/data.zip`} download={`${studyName}-data-${number}.zip`}>
        data
      </a>
      <a href={`/studies/${studyId}/report/cards?of=${number}`}>cards for video and posts</a>
    </p>
  );
}

interface NotMadeProps {
  revision: RevisionSeen;
  attempt: (work: () => Promise<void>) => Promise<boolean>;
  studyId: string;
  number: number;
}

/** Why a revision could not be made, and a key to try again. */
function NotMade({ revision, attempt, studyId, number }: NotMadeProps) {
  return (
    <p role="alert" className="mt-1 text-xs text-warn">
      It could not be made: {revision.message}{' '}
      <button
        type="button"
        className="action"
        onClick={() =>
          void attempt(async () => {
            await callApi('POST', `/studies/${studyId}/report/revisions/${number}`, {
              action: 'make-again',
            });
            void readAgain();
          })
        }
      >
        Retry
      </button>
    </p>
  );
}

function State({ revision }: { revision: RevisionSeen }) {
  if (revision.withdrawn_at !== null) return <span className="text-xs text-warn">withdrawn</span>;
  if (revision.published_at !== null) return <span className="text-xs text-plum">published</span>;
  return revision.state === 'ready' ? (
    <span className="text-xs text-ink-2">not published</span>
  ) : null;
}

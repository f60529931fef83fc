import { useState } from 'react';
import { inWords, type ContenderMark } from '../../core/model/study';
import type { PanelPage, PanelResult, SeenJudge } from '../../server/panels';
import { asItStands, callApi } from '../kit/request';
import { Panel } from '../kit/Panel';
import { usePolling } from '../kit/use-polling';
import { useTrying } from '../kit/use-trying';
import { shortTime } from '../lib/format';
import { ContenderName } from '../marks/ContenderName';
import { VernierTicks } from '../marks/VernierTicks';
import { qrPath } from '../sheets/qr-path';
import { PanelFound } from './PanelFound';
import { NumberField } from '../kit/NumberField';

interface PanelCourseProps {
  studyId: string;
  marks: readonly ContenderMark[];
  page: PanelPage;
  /** The address of the application as other devices reach it. */
  base: string;
  /** Whether other devices reach it at all. */
  isReached: boolean;
  /** Whether who looks may change something. */
  mayEdit: boolean;
}

const LOOK_EVERY_MS = 3000;

const EVENTS = {
  looked: 'looked before the end',
  'ended-early': 'ended early',
  'taken-out': 'taken out',
  'pace-checked': 'fast answers looked at',
} as const;

/** What judges are shown, in words. */
function shownAs(setup: NonNullable<PanelPage['setup']>): string {
  if (setup.shown_as !== 'photos') return 'the parts themselves';
  const light = inWords(setup.light ?? 'unknown');
  const levels = setup.levels === 'matched' ? ', grey and equally bright' : '';
  return `photos, ${inWords(setup.view ?? '')}, ${light} light${levels}`;
}

const ENDS = {
  number: 'as many judges as were wanted have ended',
  date: 'its date came',
  hand: 'ended by hand',
} as const;

type Asked =
  { do: 'look' | 'end' | 'check-pace' } | { do: 'take-out'; specimen_id: string; code: string };

/** A panel from its opening to its result. */
export function PanelCourse({
  studyId,
  marks,
  base,
  isReached,
  mayEdit,
  ...props
}: PanelCourseProps) {
  const [page, setPage] = useState(props.page);
  const [asked, setAsked] = useState<Asked | null>(null);
  const [early, setEarly] = useState<PanelResult | null>(null);
  const { message, isBusy, attempt } = useTrying();
  const path = `/studies/${studyId}/panels/${page.panel.panel_id}`;
  const look = async () => setPage(await asItStands(() => callApi<PanelPage>('GET', path)));
  usePolling(look, LOOK_EVERY_MS, page.state === 'open');
  const step = (content: object) =>
    attempt(async () => {
      const found = await callApi<{ result: PanelResult | null }>('POST', path, content);
      setEarly(found.result);
      setAsked(null);
      await look();
    });
  const { panel, setup, state, judges, items, notes, result } = page;
  const done = judges.filter(
    (one) =>
      one.state === 'done' ||
      ((one.state === 'stopped' || one.state === 'left') && one.answered > 0),
  ).length;
  return (
    <div className="grid min-w-0 gap-3">
      <section className="min-w-0 sheet p-3" aria-labelledby="panel">
        <p className="text-2xs text-ink-2">
          {
            {
              paired: 'which is better',
              triangle: 'can they be told apart',
              guess: 'which is which',
            }[panel.kind]
          }
          {setup && ` · ${shownAs(setup)}`}
        </p>
        <h1 id="panel" className="text-lg font-semibold">
          {panel.aspect}
        </h1>
        {state === 'open' && setup && (
          <Invitation
            page={page}
            base={base}
            isReached={isReached}
            studyId={studyId}
            done={done}
            wanted={setup.judges}
            closesAt={setup.closes_at}
            mayEdit={mayEdit}
            onStep={(content) => void step(content)}
          />
        )}
        {state === 'closed' && (
          <div className="mt-2 grid gap-3">
            <p className="text-ink-2">
              Closed at {shortTime(setup?.closed_at ?? '')}: {ENDS[setup?.closed_by ?? 'hand']}. The
              result as it stands without names:
            </p>
            {result && <PanelFound {...result} panelId={null} marks={[]} />}
            {mayEdit && (
              <p>
                <button
                  type="button"
                  className="action min-h-12 action-main px-5 text-base"
                  disabled={isBusy}
                  onClick={() => void step({ do: 'reveal' })}
                >
                  Say the names
                </button>
                <span className="ml-3 text-ink-2">
                  From then on the ballots are evidence of the study.
                </span>
              </p>
            )}
          </div>
        )}
        {(state === 'revealed' || state === 'elsewhere') && result && (
          <div className="mt-2" data-revealed="">
            <PanelFound {...result} panelId={panel.panel_id} marks={marks} />
            {result.isWithheld && mayEdit && (
              <button
                type="button"
                className="mt-2 action action-main"
                onClick={() => setAsked({ do: 'check-pace' })}
              >
                Confirm the answers
              </button>
            )}
          </div>
        )}
        {early && (
          <div className="mt-3 border-t border-line pt-3">
            <p className="text-ink-2">As it stood when you looked; that you did is noted.</p>
            <PanelFound {...early} panelId={null} marks={[]} />
          </div>
        )}
        {message && (
          <p role="alert" className="mt-2">
            {message}
          </p>
        )}
        {state === 'open' && mayEdit && (
          <p className="mt-3 flex flex-wrap gap-2">
            <button type="button" className="action" onClick={() => setAsked({ do: 'look' })}>
              Look at the result so far
            </button>
            <button type="button" className="action" onClick={() => setAsked({ do: 'end' })}>
              End it early
            </button>
          </p>
        )}
        {notes.length > 0 && (
          <ul className="mt-3 border-t border-line pt-2 text-xs" aria-label="Noted of this panel">
            {notes.map((one) => (
              <li key={`${one.at} ${one.what}`}>
                <b>{EVENTS[one.what]}</b> {shortTime(one.at)}
                {one.operator ? `, ${one.operator}` : ''}: {one.note}
              </li>
            ))}
          </ul>
        )}
      </section>
      {judges.length > 0 && state !== 'revealed' && (
        <section className="min-w-0 sheet p-3" aria-labelledby="judges">
          <h2 id="judges" className="mb-1 font-semibold">
            How far each judge is
          </h2>
          <ul className="grid gap-x-6 gap-y-1 sm:grid-cols-2 lg:grid-cols-3">
            {judges.map((one) => (
              <JudgeLine key={one.number} judge={one} />
            ))}
          </ul>
        </section>
      )}
      {items.length > 0 && (
        <section className="min-w-0 sheet p-3" aria-labelledby="shown">
          <h2 id="shown" className="mb-1 font-semibold">
            What is shown
          </h2>
          <ul className="grid gap-1">
            {marks
              .filter((mark) => items.some((one) => one.contender_id === mark.contender_id))
              .map((mark) => (
                <li
                  key={mark.contender_id}
                  className="flex flex-wrap items-center gap-x-3 gap-y-1 border-t border-line py-1 first:border-0"
                >
                  <span className="min-w-52">
                    <ContenderName mark={mark} isReference={false} />
                  </span>
                  {items
                    .filter((one) => one.contender_id === mark.contender_id)
                    .map((one) => (
                      <span key={one.specimen_id} className="flex items-center gap-1.5">
                        <span className={`font-mono ${one.isOut ? 'line-through' : ''}`}>
                          {one.code}
                        </span>
                        <span className="text-xs text-ink-2">
                          {one.isOut
                            ? 'taken out'
                            : one.seen === null
                              ? ''
                              : `judged ${one.seen} ×`}
                        </span>
                        {!one.isOut && mayEdit && (state === 'open' || state === 'closed') && (
                          <button
                            type="button"
                            className="action text-2xs"
                            aria-label={`take out ${one.code}`}
                            onClick={() =>
                              setAsked({
                                do: 'take-out',
                                specimen_id: one.specimen_id,
                                code: one.code,
                              })
                            }
                          >
                            take out
                          </button>
                        )}
                      </span>
                    ))}
                </li>
              ))}
          </ul>
          {panel.kind !== 'triangle' && page.ballots > 0 && setup !== null && (
            <p className="mt-2 text-xs text-ink-2">
              Of any two, none stood left more than {page.leftMore} times more often than the other.
            </p>
          )}
        </section>
      )}
      {asked && (
        <Reason
          asked={asked}
          isBusy={isBusy}
          message={message}
          onClose={() => setAsked(null)}
          onSay={(note) => {
            const { do: what } = asked;
            void step(
              what === 'take-out'
                ? { do: what, specimen_id: asked.specimen_id, note }
                : { do: what, note },
            );
          }}
        />
      )}
    </div>
  );
}

interface InvitationProps {
  page: PanelPage;
  base: string;
  isReached: boolean;
  studyId: string;
  done: number;
  wanted: number;
  closesAt: string | null;
  mayEdit: boolean;
  onStep: (step: object) => void;
}

/** Where judges come in, and how many have. */
function Invitation({
  page,
  base,
  isReached,
  studyId,
  done,
  wanted,
  closesAt,
  mayEdit,
  onStep,
}: InvitationProps) {
  const address = base + (page.link ?? '');
  const code = qrPath(address);
  return (
    <div className="mt-2 flex flex-wrap items-start gap-x-6 gap-y-3">
      {page.link !== null && (
        <svg
          role="img"
          aria-label="Code that leads judges in"
          viewBox={`-3 -3 ${code.size + 6} ${code.size + 6}`}
          className="bg-white h-44 w-44"
        >
          <path d={code.path} fill="#000" />
        </svg>
      )}
      <div className="grid max-w-xl flex-1 basis-72 gap-2">
        <p className="text-xl">
          {done} of {wanted} judges
        </p>
        <VernierTicks done={done} due={wanted} width={260} />
        <p className="text-ink-2">
          {page.ballots} answers so far. It ends when {wanted} have judged
          {closesAt === null ? '' : `, or at ${shortTime(closesAt)}`}; nobody sees a result before.
        </p>
        <p className="text-xs text-ink-2">
          {page.link === null
            ? `Each judge comes in by a card of their own: ${page.cards} cards were made, and the open link is closed.`
            : `Anybody with this link can judge: from one network address ${page.perAddress ?? 3} ` +
              'people, within 15 minutes 60 beginnings.'}
        </p>
        {mayEdit && (
          <p className="flex flex-wrap items-end gap-2 text-xs">
            {page.link !== null && (
              <label className="text-ink-2">
                Judges from one address
                <NumberField
                  className="block w-20"
                  value={page.perAddress ?? 3}
                  isAllowed={(count) => Number.isInteger(count) && count >= 1 && count <= 10_000}
                  onSave={(count) => onStep({ do: 'set-per-address', count })}
                />
              </label>
            )}
            {page.link !== null && (
              <button type="button" className="action" onClick={() => onStep({ do: 'make-cards' })}>
                Make a card for each judge
              </button>
            )}
            {page.cards > 0 && (
              <a
                className="action"
                href={`/studies/${studyId}/inspect/panels/${page.panel.panel_id}/cards`}
              >
                Print cards
              </a>
            )}
          </p>
        )}
        {page.link !== null && (
          <p className="text-xs break-all">
            <a href={address}>{address}</a>{' '}
            <button
              type="button"
              className="action"
              onClick={() => void navigator.clipboard.writeText(address)}
            >
              Copy
            </button>
          </p>
        )}
        {!isReached && (
          <p className="text-xs text-ink-2">
            Other devices do not reach this computer yet: judges answer here, or the application is
            started for the house with <code>npm start -- --open</code>.
          </p>
        )}
        {page.setup?.shown_as === 'parts' && (
          <p>
            <a href={`/studies/${studyId}/inspect/panels/${page.panel.panel_id}/sheets`}>
              Stickers, and what to lay where
            </a>
          </p>
        )}
      </div>
    </div>
  );
}

const WORDS: Record<SeenJudge['state'], string> = {
  waiting: 'not there yet',
  'at it': 'at it',
  done: 'done',
  stopped: 'stopped',
  left: 'has gone',
};

function JudgeLine({ judge }: { judge: SeenJudge }) {
  return (
    <li className="flex items-center gap-2">
      <span className="w-12 font-mono">{judge.name}</span>
      <VernierTicks done={judge.answered} due={judge.of} width={90} />
      <span className="text-xs text-ink-2">
        {judge.answered} of {judge.of}, {WORDS[judge.state]}
      </span>
    </li>
  );
}

interface ReasonProps {
  asked: Asked;
  isBusy: boolean;
  message: string | null;
  onClose: () => void;
  onSay: (note: string) => void;
}

const TITLES = {
  look: 'Look at the result so far',
  end: 'End the panel early',
  'check-pace': 'Confirm the answers',
  'take-out': 'Take a specimen out',
} as const;

/** Asks why, before what a reader of the result has to know is done. */
function Reason({ asked, isBusy, message, onClose, onSay }: ReasonProps) {
  const [note, setNote] = useState('');
  return (
    <Panel
      title={asked.do === 'take-out' ? `Take ${asked.code} out` : TITLES[asked.do]}
      onClose={onClose}
    >
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          onSay(note);
        }}
      >
        <p>
          {asked.do === 'take-out'
            ? 'It is not shown again, and what was said of it does not count.'
            : asked.do === 'check-pace'
              ? 'Half of the answers came in under 2 s. Say why they can count.'
              : 'Who ends a panel when its result is liked, finds what they like.'}{' '}
          Your reason stays with the result, and the report prints it.
        </p>
        <label className="grid gap-1">
          why
          <textarea
            className="field min-h-20"
            required
            maxLength={2000}
            value={note}
            onChange={(event) => setNote(event.target.value)}
          />
        </label>
        {message && <p role="alert">{message}</p>}
        <p>
          <button
            type="submit"
            className="action action-main"
            disabled={isBusy || note.trim() === ''}
          >
            {TITLES[asked.do]}
          </button>
        </p>
      </form>
    </Panel>
  );
}

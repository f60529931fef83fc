import type { SetStateAction, Dispatch } from 'react';
import { inWords, type ContenderMark } from '../../core/model/study';
import type { PanelPage, PanelResult } from '../../contract/panels';
import { VernierTicks } from '../marks/VernierTicks';
import { shortTime } from '../lib/format';
import { qrPath } from '../sheets/qr-path';
import { PanelFound } from './PanelFound';
import { NumberField } from '../kit/NumberField';

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

interface PanelHeadProps {
  page: PanelPage;
  base: string;
  isReached: boolean;
  studyId: string;
  done: number;
  mayEdit: boolean;
  step: (content: object) => Promise<boolean>;
  isBusy: boolean;
  marks: PanelCourseProps['marks'];
  setAsked: Dispatch<SetStateAction<Asked | null>>;
  early: PanelResult | null;
  message: string | null;
}

/** How far the panel is, and what can be done with it. */
export function PanelHead(props: PanelHeadProps) {
  const { page, base, isReached, studyId, done, mayEdit, step, isBusy, marks } = props;
  const { setAsked, early, message } = props;
  const { panel, setup, state, result, notes } = page;
  return (
    <section className="min-w-0 sheet p-3" aria-labelledby="panel">
      <p className="text-2xs text-ink-2">
        {
          {
            paired: 'which is better',
            triangle: 'can people see a difference',
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
        <ClosedPanel setup={setup} result={result} mayEdit={mayEdit} isBusy={isBusy} step={step} />
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
            End panel early
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
  );
}

interface ClosedPanelProps {
  setup: PanelPage['setup'];
  result: PanelPage['result'];
  mayEdit: boolean;
  isBusy: boolean;
  step: PanelHeadProps['step'];
}

/** All have judged: the result is not looked at yet. */
function ClosedPanel({ setup, result, mayEdit, isBusy, step }: ClosedPanelProps) {
  return (
    <div className="mt-2 grid gap-3">
      <p className="text-ink-2">
        Closed at {shortTime(setup?.closed_at ?? '')}: {ENDS[setup?.closed_by ?? 'hand']}. The
        result so far, without names:
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
            Reveal names
          </button>
          <span className="ml-3 text-ink-2">
            From then on the ballots are evidence of the study.
          </span>
        </p>
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
          {closesAt === null ? '' : `, or at ${shortTime(closesAt)}`}; the result stays hidden until
          then.
        </p>
        <p className="text-xs text-ink-2">
          {page.link === null
            ? `Each judge comes in by a card of their own: ${page.cards} cards were made, and the open link is closed.`
            : `Anybody with this link can judge: from one network address ${page.perAddress ?? 3} ` +
              'people, within 15 minutes 60 beginnings.'}
        </p>
        {mayEdit && <InvitationKeys page={page} onStep={onStep} studyId={studyId} />}
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

interface InvitationKeysProps {
  page: PanelPage;
  onStep: InvitationProps['onStep'];
  studyId: string;
}

/** The link: made, taken back, for how long. */
function InvitationKeys({ page, onStep, studyId }: InvitationKeysProps) {
  return (
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
  );
}

export interface PanelCourseProps {
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

export type Asked =
  { do: 'look' | 'end' | 'check-pace' } | { do: 'take-out'; specimen_id: string; code: string };

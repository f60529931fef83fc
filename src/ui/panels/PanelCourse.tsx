import { useState, type SetStateAction, type Dispatch } from 'react';
import type {
  PanelPage,
  PanelResult,
  PanelState,
  SeenItem,
  SeenJudge,
} from '../../contract/panels';
import type { Stored } from '../../contract/rows';
import { asItStands, callApi } from '../kit/request';
import { Panel } from '../kit/Panel';
import { usePolling } from '../kit/use-polling';
import { useTrying } from '../kit/use-trying';
import { ContenderName } from '../marks/ContenderName';
import { VernierTicks } from '../marks/VernierTicks';
import { PanelHead, type PanelCourseProps, type Asked } from './PanelHead';

const LOOK_EVERY_MS = 3000;

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
  const { panel, setup, state, judges, items } = page;
  const done = judges.filter(
    (one) =>
      one.state === 'done' ||
      ((one.state === 'stopped' || one.state === 'left') && one.answered > 0),
  ).length;
  return (
    <div className="grid min-w-0 gap-3">
      <PanelHead
        page={page}
        base={base}
        isReached={isReached}
        studyId={studyId}
        done={done}
        mayEdit={mayEdit}
        step={step}
        isBusy={isBusy}
        marks={marks}
        setAsked={setAsked}
        early={early}
        message={message}
      />
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
        <ShownSpecimens
          marks={marks}
          items={items}
          mayEdit={mayEdit}
          state={state}
          setAsked={setAsked}
          panel={panel}
          page={page}
          setup={setup}
        />
      )}
      {asked && (
        <AskedReason
          asked={asked}
          isBusy={isBusy}
          message={message}
          setAsked={setAsked}
          step={step}
        />
      )}
    </div>
  );
}

interface AskedReasonProps {
  asked: Asked;
  isBusy: boolean;
  message: string | null;
  setAsked: Dispatch<SetStateAction<Asked | null>>;
  step: (content: object) => Promise<boolean>;
}

/** Why a panel is looked at or ended early. */
function AskedReason({ asked, isBusy, message, setAsked, step }: AskedReasonProps) {
  return (
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
  );
}

interface ShownSpecimensProps {
  marks: PanelCourseProps['marks'];
  items: SeenItem[];
  mayEdit: boolean;
  state: PanelState;
  setAsked: Dispatch<SetStateAction<Asked | null>>;
  panel: Stored<'panels'>;
  page: PanelPage;
  setup: Stored<'panel_setups'> | null;
}

/** Which specimens are shown, and under which code. */
function ShownSpecimens({
  marks,
  items,
  mayEdit,
  state,
  setAsked,
  panel,
  page,
  setup,
}: ShownSpecimensProps) {
  return (
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
                      {one.isOut ? 'taken out' : one.seen === null ? '' : `judged ${one.seen} ×`}
                    </span>
                    {!one.isOut && mayEdit && (state === 'open' || state === 'closed') && (
                      <button
                        type="button"
                        className="action text-2xs"
                        aria-label={`Remove ${one.code}`}
                        onClick={() =>
                          setAsked({
                            do: 'take-out',
                            specimen_id: one.specimen_id,
                            code: one.code,
                          })
                        }
                      >
                        Remove
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
            ? 'It is not shown again, and answers about it do not count.'
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

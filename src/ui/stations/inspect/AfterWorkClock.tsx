import { chosenOf } from '../../kit/chosen';
import { elementOf } from '../../kit/event-target';
import { useEffect, useState, type SetStateAction, type Dispatch } from 'react';
import { minutesOf, AFTERCARE_KINDS, inWords, type Row } from '../../../core/model/study';
import { failureText } from '../../kit/request';
import { fixed } from '../../lib/format';
import { sendOrKeep } from '../../lib/outbox';
import { useRemembered } from '../../lib/remembered';
import { GRADES } from './grades';
import { NumberField } from '../../kit/NumberField';

interface AfterWorkClockProps {
  studyId: string;
  specimenId: string;
  operator: string;
  /** What was kept so far, of any specimen and hands. */
  known: readonly Row<'aftercare'>[];
  onKept: (row: Row<'aftercare'>) => void;
}

type Kind = (typeof AFTERCARE_KINDS)[number];
interface Done {
  minutes: number;
  damage: number | null;
}

/** A clock for what hands do to a specimen once it is printed; it goes on when the page is left. */
export function AfterWorkClock({
  studyId,
  specimenId,
  operator,
  known,
  onKept,
}: AfterWorkClockProps) {
  const [chosen, setKind] = useState<Kind>('support');
  // What the clock counts, and since when.
  const [started, setStarted] = useRemembered(`post-processing ${studyId} ${specimenId}`);
  const [counted, begun] = started.split(' ');
  const since = Number(begun) || 0;
  const kind = AFTERCARE_KINDS.find((one) => since !== 0 && one === counted) ?? chosen;
  const [done, setDone] = useState<ReadonlyMap<Kind, Done>>(
    () =>
      new Map(
        known
          .filter((row) => row.specimen_id === specimenId && (row.operator ?? '') === operator)
          .map((row) => [row.kind, { minutes: row.minutes, damage: row.damage }]),
      ),
  );
  const [now, setNow] = useState(0);
  const [message, setMessage] = useState('');
  const own = done.get(kind) ?? { minutes: 0, damage: null };
  useEffect(() => {
    if (since === 0) return undefined;
    const timer = setInterval(() => setNow(Date.now()), 500);
    return () => clearInterval(timer);
  }, [since]);

  const keep = (next: Done) => {
    const before = done;
    setDone(new Map(done).set(kind, next));
    const row: Row<'aftercare'> = {
      specimen_id: specimenId,
      kind,
      operator: operator || null,
      note: null,
      residue: null,
      minutes: Number(next.minutes.toFixed(2)),
      damage: next.damage,
    };
    sendOrKeep(`/studies/${studyId}/aftercare`, row).then(
      () => {
        setMessage('');
        onKept(row);
      },
      (error: unknown) => {
        setDone(before);
        setMessage(`It was not saved: ${failureText(error)}`);
      },
    );
  };
  const turn = () => {
    if (since === 0) {
      setNow(Date.now());
      return setStarted(`${kind} ${Date.now()}`);
    }
    setStarted('');
    setKind(kind);
    keep({ ...own, minutes: own.minutes + (Date.now() - since) / 60_000 });
  };
  useClockKey(turn);
  const running = since === 0 ? 0 : Math.max(0, now - since) / 1000;
  return (
    <section aria-labelledby="after-work-clock" className="mt-3 sheet p-3">
      <ClockFields
        kind={kind}
        since={since}
        setKind={setKind}
        turn={turn}
        running={running}
        own={own}
        keep={keep}
        done={done}
      />
      <p role="status" className="text-warn">
        {message}
      </p>
    </section>
  );
}

/** The key that starts and stops the clock. */
function useClockKey(turn: () => void) {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const target = elementOf(event);
      if (!target) return;
      if (event.key !== ' ' || event.repeat || event.ctrlKey || event.metaKey || event.altKey)
        return;
      if (target.closest('input, select, textarea, button, dialog, a, summary')) return;
      event.preventDefault();
      turn();
    };
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  });
}

interface ClockFieldsProps {
  kind: 'support' | 'brim' | 'strings' | 'clean-up' | 'other';
  since: number;
  setKind: Dispatch<SetStateAction<'support' | 'brim' | 'strings' | 'clean-up' | 'other'>>;
  turn: () => void;
  running: number;
  own: Done;
  keep: (next: Done) => void;
  done: ReadonlyMap<'support' | 'brim' | 'strings' | 'clean-up' | 'other', Done>;
}

/** What is done, for how long, and what it damaged. */
function ClockFields({ kind, since, setKind, turn, running, own, keep, done }: ClockFieldsProps) {
  return (
    <div className="flex flex-wrap items-end gap-2">
      <h2 id="after-work-clock" className="font-semibold">
        Post-processing
      </h2>
      <label className="text-xs text-ink-2">
        what is done
        <select
          className="block field w-32"
          value={kind}
          disabled={since !== 0}
          onChange={(event) => setKind(chosenOf(event, AFTERCARE_KINDS))}
        >
          {AFTERCARE_KINDS.map((one) => (
            <option key={one} value={one}>
              {inWords(one)}
            </option>
          ))}
        </select>
      </label>
      <button
        type="button"
        className={`action min-h-[44px] min-w-32 ${since === 0 ? '' : 'action-main'}`}
        data-keys="Space"
        data-does="start and stop the post-processing clock"
        onClick={turn}
      >
        {since === 0 ? 'Start clock' : `Stop · ${minutesOf(running)}`}{' '}
        <kbd className="key">Space</kbd>
      </button>
      <label className="text-xs text-ink-2">
        minutes
        <NumberField
          key={kind}
          className="block w-20"
          value={own.minutes}
          show={(minutes) => fixed(minutes, 1)}
          isAllowed={(minutes) => minutes >= 0}
          onSave={(minutes) => keep({ ...own, minutes })}
        />
      </label>
      <label className="text-xs text-ink-2">
        damage
        <select
          className="block field w-32"
          value={own.damage ?? ''}
          onChange={(event) =>
            keep({
              ...own,
              damage: event.target.value === '' ? null : Number(event.target.value),
            })
          }
        >
          <option value="">not stated</option>
          {GRADES.map(({ grade, word }) => (
            <option key={grade} value={grade}>
              {grade} {word}
            </option>
          ))}
        </select>
      </label>
      <button type="button" className="action" onClick={() => keep({ minutes: 0, damage: 0 })}>
        None needed
      </button>
      <p className="text-xs text-ink-2">
        {[...done]
          .map(([one, { minutes }]) => `${inWords(one)} ${fixed(minutes, 1)} min`)
          .join(' · ')}
      </p>
    </div>
  );
}

import { useEffect, useState, type SetStateAction, type Dispatch } from 'react';
import type { CatalogueItem } from '../../contract/workshop';
import { goTo } from '../kit/leave';
import { callApi, failureText } from '../kit/request';
import { useOnce } from '../kit/use-once';
import { INTENT_WORDS } from './intents';

interface NewStudyProps {
  studies: readonly { study_id: string; title: string }[];
  /** The study that it copies and the title proposed for that, and its machine, where one was chosen. */
  again: string;
  title: string;
  machine: string;
  onCancel: () => void;
}

/** A form for a new study: empty, or a copy of another one for the next machine of a series. */
export function NewStudy({ studies, onCancel, ...chosen }: NewStudyProps) {
  const [title, setTitle] = useState(chosen.title);
  const [intent, setIntent] = useState('machines');
  const [again, setAgain] = useState(chosen.again);
  const [machine, setMachine] = useState(chosen.machine);
  const [machines, setMachines] = useState<readonly CatalogueItem[]>([]);
  const [message, setMessage] = useState<string | null>(null);
  const once = useOnce();
  useEffect(() => {
    callApi<CatalogueItem[]>('GET', '/things?kind=machine').then(setMachines, () => undefined);
  }, []);
  const submit = async () => {
    try {
      const { study_id } = await callApi<{ study_id: string }>('POST', '/studies', {
        title,
        ...(again === '' ? { intent } : { again }),
        ...(machine !== '' && { with: machine }),
      });
      const station = machine === '' && again === '' ? 'question' : 'line-up';
      await goTo(`/studies/${study_id}/${station}`);
    } catch (error) {
      setMessage(failureText(error, 'The study was not created.'));
    }
  };
  return (
    <form
      aria-label="New study"
      className="mt-3 grid gap-3 sheet p-4 md:grid-cols-[2fr_1fr_1fr_1fr_auto] md:items-end"
      onSubmit={(event) => {
        event.preventDefault();
        once('make', submit);
      }}
      onKeyDown={(event) => event.key === 'Escape' && onCancel()}
    >
      <label className="text-xs text-ink-2">
        Title
        <input
          className="field"
          autoFocus
          required
          onFocus={(event) => event.target.select()}
          value={title}
          onChange={(event) => setTitle(event.target.value)}
        />
      </label>
      <label className="text-xs text-ink-2">
        Copy of
        <select className="field" value={again} onChange={(event) => setAgain(event.target.value)}>
          <option value="">none: an empty study</option>
          {studies.map((study) => (
            <option key={study.study_id} value={study.study_id}>
              {study.title}
            </option>
          ))}
        </select>
      </label>
      <IntentChoice again={again} intent={intent} setIntent={setIntent} />
      <MachineChoice machine={machine} setMachine={setMachine} machines={machines} />
      <p className="flex gap-2">
        <button className="action action-main">Create study</button>
        <button type="button" className="action" onClick={onCancel}>
          Cancel
        </button>
      </p>
      {again !== '' && (
        <p className="col-span-full text-xs text-ink-2">
          The copy has the line-up, artefacts, instruments, plan, scorecards and the order of the
          report. Prints and findings stay in the original.
        </p>
      )}
      {message && (
        <p role="alert" className="text-warn">
          {message}
        </p>
      )}
    </form>
  );
}

interface IntentChoiceProps {
  again: string;
  intent: string;
  setIntent: Dispatch<SetStateAction<string>>;
}

/** What varies on purpose. */
function IntentChoice({ again, intent, setIntent }: IntentChoiceProps) {
  return (
    <label className="text-xs text-ink-2">
      What varies on purpose
      <select
        className="field"
        value={again === '' ? intent : ''}
        disabled={again !== ''}
        onChange={(event) => setIntent(event.target.value)}
      >
        {again !== '' && <option value="">as that one</option>}
        {INTENT_WORDS.map(([key, said]) => (
          <option key={key} value={key}>
            {said}
          </option>
        ))}
      </select>
    </label>
  );
}

interface MachineChoiceProps {
  machine: string;
  setMachine: Dispatch<SetStateAction<string>>;
  machines: readonly CatalogueItem[];
}

/** A machine of the workshop to begin with. */
function MachineChoice({ machine, setMachine, machines }: MachineChoiceProps) {
  return (
    <label className="text-xs text-ink-2">
      with
      <select
        className="field"
        value={machine}
        onChange={(event) => setMachine(event.target.value)}
      >
        <option value="">a machine named later</option>
        {machines.map(({ uid, name }) => (
          <option key={uid} value={uid}>
            {name}
          </option>
        ))}
      </select>
    </label>
  );
}

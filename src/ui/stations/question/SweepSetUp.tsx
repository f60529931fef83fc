import { useState, type SetStateAction, type Dispatch } from 'react';
import { columnLabel, columnWords } from '../../../core/model/study/labels';
import { readNumber } from '../../lib/entry';
import { readAgain } from '../../kit/leave';
import { ApiError, callApi, failureText } from '../../kit/request';

interface SweepSetUpProps {
  studyId: string;
  contenders: readonly { value: string; label: string }[];
  /** Settings that the contenders' profiles state, by contender. */
  settings: Readonly<Record<string, Readonly<Record<string, string>>>>;
  /** The steps as they are; null where there are none. */
  sweep: {
    setting: string;
    unit?: string | null | undefined;
    steps: readonly { contender_id: string; value: number }[];
  } | null;
}

/** One setting in steps: made from one contender, the sliced files matched by what they say. */
export function SweepSetUp({ studyId, contenders, settings, sweep }: SweepSetUpProps) {
  const [contender, setContender] = useState(contenders[0]?.value ?? '');
  const known = Object.keys(settings[contender] ?? {}).filter((key) =>
    Number.isFinite(Number(settings[contender]?.[key])),
  );
  const [asked, setSetting] = useState('');
  const setting = asked || known.find((key) => key.startsWith('speed_outer')) || known[0] || '';
  const [text, setText] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(false);
  const { unit } = columnLabel(setting);
  const values = text
    .split(/[\s;]+|,(?=\s)/)
    .filter(Boolean)
    .map((one) => {
      const entry = readNumber(one);
      return 'value' in entry ? (entry.value ?? NaN) : NaN;
    });
  const own = settings[contender]?.[setting];
  const localFault = (): string | null => {
    const broken = text.split(/[\s;]+|,(?=\s)/).filter(Boolean)[values.findIndex(Number.isNaN)];
    if (broken !== undefined) return `“${broken}” is no number.`;
    if (values.length < 3) return 'A sweep needs at least three steps, the safe end first.';
    const turns = values.slice(1).map((value, at) => Math.sign(value - (values[at] ?? 0)));
    const odd = turns.findIndex((turn) => turn === 0 || turn !== turns[0]);
    return odd < 0
      ? null
      : `The steps must all go one way: ${values[odd + 1]} comes after ${values[odd]}.`;
  };
  const send = async () => {
    const local = localFault();
    setFault(local);
    if (local !== null) return;
    setBusy(true);
    try {
      await callApi('POST', `/studies/${studyId}/sweep`, {
        contender_id: contender,
        setting,
        unit,
        values,
      });
      void readAgain();
    } catch (error) {
      setBusy(false);
      const [first] = error instanceof ApiError ? error.issues : [];
      setFault(first ? `${first.path} ${first.message}` : failureText(error));
    }
  };
  return (
    <section className="mt-3 sheet p-4" aria-labelledby="sweep-set-up">
      <h2 id="sweep-set-up" className="font-semibold">
        A setting in steps
      </h2>
      {sweep && <SweepSteps sweep={sweep} />}
      <p className="mt-1 text-xs text-ink-2">
        How far can one setting be taken before something is lost? Each step gets a profile and a
        contender, copied with their plan from the contender you choose. Sliced files that state a
        step’s value are matched to that step.
      </p>
      {contenders.length === 0 ? (
        <p className="mt-2 text-ink-2">Add a contender first: the steps are copies of it.</p>
      ) : (
        <SweepForm
          send={send}
          contender={contender}
          setContender={setContender}
          contenders={contenders}
          known={known}
          setting={setting}
          setSetting={setSetting}
          asked={asked}
          unit={unit}
          text={text}
          fault={fault}
          setText={setText}
          isBusy={isBusy}
          own={own}
        />
      )}
    </section>
  );
}

interface SweepStepsProps {
  sweep: {
    setting: string;
    unit?: string | null | undefined;
    steps: readonly { contender_id: string; value: number }[];
  };
}

/** The steps of the sweep that is set up. */
function SweepSteps({ sweep }: SweepStepsProps) {
  return (
    <p className="mt-1">
      {columnWords(sweep.setting)}:{' '}
      <span className="font-mono">{sweep.steps.map(({ value }) => value).join(' → ')}</span>
      <span className="text-xs text-ink-2">
        {' '}
        · {sweep.steps.length} steps, the first is the reference
      </span>
    </p>
  );
}

interface SweepFormProps {
  send: () => Promise<void>;
  contender: string;
  setContender: Dispatch<SetStateAction<string>>;
  contenders: SweepSetUpProps['contenders'];
  known: string[];
  setting: string;
  setSetting: Dispatch<SetStateAction<string>>;
  asked: string;
  unit: string | null;
  text: string;
  fault: string | null;
  setText: Dispatch<SetStateAction<string>>;
  isBusy: boolean;
  own: string | undefined;
}

/** From which contender, which setting, in which steps. */
function SweepForm({
  send,
  contender,
  setContender,
  contenders,
  known,
  setting,
  setSetting,
  asked,
  unit,
  text,
  fault,
  setText,
  isBusy,
  own,
}: SweepFormProps) {
  return (
    <form
      className="mt-2 flex flex-wrap items-end gap-3 text-xs text-ink-2"
      onSubmit={(event) => {
        event.preventDefault();
        void send();
      }}
    >
      <label>
        made from
        <select
          className="block field w-48"
          value={contender}
          onChange={(event) => setContender(event.target.value)}
        >
          {contenders.map((one) => (
            <option key={one.value} value={one.value}>
              {one.label}
            </option>
          ))}
        </select>
      </label>
      <label>
        setting
        {known.length > 0 ? (
          <select
            className="block field w-52"
            value={setting}
            onChange={(event) => setSetting(event.target.value)}
          >
            {known.map((key) => (
              <option key={key} value={key}>
                {columnWords(key)}
              </option>
            ))}
          </select>
        ) : (
          <input
            className="block field w-52"
            value={asked}
            onChange={(event) => setSetting(event.target.value)}
          />
        )}
      </label>
      <label>
        steps, the safe end first{unit && `, ${unit}`}
        <input
          className="block field w-64 font-mono"
          placeholder="120 160 200 240"
          value={text}
          aria-invalid={fault !== null}
          aria-describedby={fault === null ? undefined : 'sweep-fault'}
          onChange={(event) => setText(event.target.value)}
        />
      </label>
      <button type="submit" className="action action-main" disabled={isBusy || setting === ''}>
        Set the steps up
      </button>
      {own !== undefined && (
        <span>
          its profile has <span className="font-mono">{own}</span>
        </span>
      )}
      {fault !== null && (
        <p id="sweep-fault" role="alert" className="w-full text-warn">
          {fault}
        </p>
      )}
    </form>
  );
}

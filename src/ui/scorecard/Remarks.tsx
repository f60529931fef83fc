import { chosenOf } from '../kit/chosen';
import { useState } from 'react';
import { MARK_ASPECTS, MARK_SIGNS } from '../../core/model/study/catalogues';
import { inWords } from '../../core/model/study/labels';
import type { Row } from '../../core/model/study';
import { readAgain } from '../kit/leave';
import { callApi, failureText } from '../kit/request';
import { useOnce } from '../kit/use-once';
import { localIso, readNumber } from '../lib/entry';
import { readOperator } from '../lib/operator';

type Remark = Row<'marks'>;

interface RemarksProps {
  studyId: string;
  machines: readonly { id: string; name: string }[];
  initial: readonly Remark[];
}

const SIGNS = { plus: '+', minus: '−', neutral: '·' } as const;

/** A remark as it is being written. */
interface Draft extends Pick<Remark, 'machine_id' | 'aspect' | 'sign'> {
  value: string;
  text: string;
}

/** Marks by hand, 0 to 10, with words: for what no instrument measures. */
export function Remarks({ studyId, machines, initial }: RemarksProps) {
  const [remarks, setRemarks] = useState(initial);
  const [message, setMessage] = useState('');
  const [draft, setDraft] = useState<Draft>({
    machine_id: machines[0]?.id ?? '',
    aspect: MARK_ASPECTS[0],
    sign: 'plus',
    value: '',
    text: '',
  });
  const put = (change: Partial<typeof draft>) => setDraft({ ...draft, ...change });
  const once = useOnce();
  const send = async () => {
    const entry = readNumber(draft.value);
    const value = 'value' in entry ? entry.value : NaN;
    if (value !== null && !(value >= 0 && value <= 10)) {
      return setMessage(`A mark is from 0 to 10, not “${draft.value}”.`);
    }
    if (draft.text.trim() === '') return setMessage('Say in words what the mark rests on.');
    const { machine_id, aspect, sign, text } = draft;
    const row: Remark = {
      machine_id,
      aspect,
      sign,
      value,
      text: text.trim(),
      evidence: null,
      operator: readOperator() || null,
      at: localIso(new Date()),
    };
    try {
      await callApi('POST', `/studies/${studyId}/rows/marks`, row);
      // A mark is evidence: the cards are filled in anew with it.
      await readAgain();
    } catch (error) {
      setMessage(`It was not saved: ${failureText(error)}`);
    }
  };
  const takeBack = async (remark: Remark) => {
    try {
      await callApi('DELETE', `/studies/${studyId}/rows/marks`, remark);
      setRemarks(remarks.filter((one) => one !== remark));
      void readAgain();
    } catch (error) {
      setMessage(failureText(error));
    }
  };
  const nameOf = (id: string) => machines.find((one) => one.id === id)?.name ?? id;
  return (
    <section className="mt-3 min-w-0 sheet" aria-labelledby="remarks">
      <header className="border-b border-line px-3 py-2">
        <h2 id="remarks" className="font-semibold">
          Marks by hand
        </h2>
        <p className="text-xs text-ink-2">
          For what no instrument measures: how easy a machine is to handle, reach and understand.
          Marks from 0 to 10 can count on a scorecard; remarks are shown beside it.
        </p>
      </header>
      <RemarkForm
        once={once}
        send={send}
        draft={draft}
        put={put}
        machines={machines}
        message={message}
      />
      {remarks.length > 0 && <RemarkList remarks={remarks} nameOf={nameOf} takeBack={takeBack} />}
    </section>
  );
}

interface RemarkFormProps {
  once: (key: string, work: () => Promise<unknown>) => void;
  send: () => Promise<void>;
  draft: Draft;
  put: (change: Partial<Draft>) => void;
  machines: RemarksProps['machines'];
  message: string;
}

/** A remark about one aspect of a machine. */
function RemarkForm({ once, send, draft, put, machines, message }: RemarkFormProps) {
  return (
    <form
      className="flex flex-wrap items-end gap-2 px-3 py-2 text-xs text-ink-2"
      onSubmit={(event) => {
        event.preventDefault();
        once('add', send);
      }}
    >
      <label>
        machine
        <select
          className="block field w-36"
          value={draft.machine_id}
          onChange={(event) => put({ machine_id: event.target.value })}
        >
          {machines.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </select>
      </label>
      <label>
        aspect
        <select
          className="block field w-32"
          value={draft.aspect}
          onChange={(event) => put({ aspect: chosenOf(event, MARK_ASPECTS) })}
        >
          {MARK_ASPECTS.map((one) => (
            <option key={one} value={one}>
              {inWords(one)}
            </option>
          ))}
        </select>
      </label>
      <label>
        speaks
        <select
          className="block field w-28"
          value={draft.sign}
          onChange={(event) => put({ sign: chosenOf(event, MARK_SIGNS) })}
        >
          {MARK_SIGNS.map((one) => (
            <option key={one} value={one}>
              {{ plus: '+ for it', minus: '− against it', neutral: '· neither' }[one]}
            </option>
          ))}
        </select>
      </label>
      <label>
        mark 0–10
        <input
          className="block field w-16 text-right font-mono"
          inputMode="decimal"
          value={draft.value}
          onChange={(event) => put({ value: event.target.value })}
        />
      </label>
      <label className="min-w-40 flex-1">
        in words
        <input
          className="block field w-full"
          maxLength={2000}
          value={draft.text}
          onChange={(event) => put({ text: event.target.value })}
        />
      </label>
      <button type="submit" className="action action-main" disabled={machines.length === 0}>
        Save mark
      </button>
      <p role="status" className="w-full text-warn">
        {message}
      </p>
    </form>
  );
}

interface RemarkListProps {
  remarks: readonly Remark[];
  nameOf: (id: string) => string;
  takeBack: (remark: Remark) => Promise<void>;
}

/** What was remarked. */
function RemarkList({ remarks, nameOf, takeBack }: RemarkListProps) {
  return (
    <ul className="px-3 pb-2">
      {remarks.map((remark, at) => (
        <li key={at} className="flex flex-wrap items-baseline gap-2 border-t border-line-soft py-1">
          <span className="font-mono">{SIGNS[remark.sign]}</span>
          <b className="font-medium">{nameOf(remark.machine_id)}</b>
          <span className="text-xs text-ink-2">{inWords(remark.aspect)}</span>
          {remark.value !== null && <span className="font-mono">{remark.value}</span>}
          <span className="min-w-0">{remark.text}</span>
          <span className="text-xs text-ink-2">{remark.operator}</span>
          <button
            type="button"
            className="ml-auto min-h-[24px] text-2xs text-ink-2 underline hover:text-plum"
            onClick={() => void takeBack(remark)}
          >
            take back
          </button>
        </li>
      ))}
    </ul>
  );
}

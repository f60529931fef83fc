import { useState, type SetStateAction, type Dispatch } from 'react';
import { v7 as uuid } from 'uuid';
import type { BenchDimension, GaugeBenchData } from '../../../contract/measure';
import { localIso } from '../../lib/entry';
import { enqueue, sendWaiting, type WaitingEntry } from '../../lib/outbox';
import { useWaiting } from '../../lib/use-waiting';
import { ReadingField } from '../measure/ReadingField';
import { Leaving } from '../../kit/Leaving';

interface GaugeBenchProps extends GaugeBenchData {
  studyId: string;
  /** The parts in the order in which each round takes them. */
  rounds: readonly (readonly string[])[];
}

/** A gauge study at the bench: each operator reads every part, round by round, earlier values unseen. */
export function GaugeBench(props: GaugeBenchProps) {
  const { studyId, plan, instrument, parts, operators, rounds } = props;
  const trials = Number(plan.trials);
  const [operator, setOperator] = useState(operators[0] ?? '');
  const [counts, setCounts] = useState(props.counts);
  const [kept, setKept] = useState<{ id: string; key: string }[]>([]);
  const [asked, setAsked] = useState<string | null>(null);
  const [announcement, setAnnouncement] = useState('');
  const waiting = useWaiting();
  const countOf = (one: string, specimen: string) => counts[`${one} ${specimen}`] ?? 0;
  const round = Math.min(...parts.map((part) => countOf(operator, part.specimen_id)));
  const open = (rounds[round] ?? parts.map((part) => part.specimen_id)).filter(
    (specimen) => countOf(operator, specimen) === round,
  );
  const isDone = round >= trials;
  const isAllRead = operators.every((one) =>
    parts.every((part) => countOf(one, part.specimen_id) >= trials),
  );
  const specimen = asked ?? open[0] ?? parts[0]?.specimen_id ?? '';
  const codeOf = (id: string) => parts.find((part) => part.specimen_id === id)?.code ?? id;
  const dimension: BenchDimension = {
    id: String(props.dimension.dimension_id),
    name: String(props.dimension.name),
    axis: String(props.dimension.axis),
    kind: String(props.dimension.kind),
    nominal_mm: Number(props.dimension.nominal_mm),
    lower_tol_mm: props.dimension.lower_tol_mm,
    upper_tol_mm: props.dimension.upper_tol_mm,
  };
  const { keep, undo } = useGaugeReadings({
    setCounts,
    operator,
    specimen,
    setKept,
    setAsked,
    dimension,
    countOf,
    instrument,
    studyId,
    kept,
    setAnnouncement,
  });
  return (
    <div className="grid grid-cols-1 items-start gap-3 lg:grid-cols-2">
      <GaugeColumn
        operators={operators}
        operator={operator}
        setOperator={setOperator}
        setAsked={setAsked}
        isDone={isDone}
        trials={trials}
        isAllRead={isAllRead}
        waiting={waiting}
        studyId={studyId}
        instrument={instrument}
        codeOf={codeOf}
        specimen={specimen}
        round={round}
        dimension={dimension}
        countOf={countOf}
        setAnnouncement={setAnnouncement}
        keep={keep}
        undo={undo}
        parts={parts}
        announcement={announcement}
      />
      <GaugeCounts
        operators={operators}
        parts={parts}
        isDone={isDone}
        specimen={specimen}
        countOf={countOf}
        trials={trials}
      />
    </div>
  );
}

interface GaugeColumnProps {
  operators: string[];
  operator: string;
  setOperator: Dispatch<SetStateAction<string>>;
  setAsked: Dispatch<SetStateAction<string | null>>;
  isDone: boolean;
  trials: number;
  isAllRead: boolean;
  waiting: readonly WaitingEntry[] | null;
  studyId: string;
  instrument: GaugeBenchProps['instrument'];
  codeOf: (id: string) => string;
  specimen: string;
  round: number;
  dimension: BenchDimension;
  countOf: (one: string, specimen: string) => number;
  setAnnouncement: Dispatch<SetStateAction<string>>;
  keep: (value_mm: number) => void;
  undo: () => void;
  parts: GaugeBenchProps['parts'];
  announcement: string;
}

/** Whose turn, and the field for the reading. */
function GaugeColumn({
  operators,
  operator,
  setOperator,
  setAsked,
  isDone,
  trials,
  isAllRead,
  waiting,
  studyId,
  instrument,
  codeOf,
  specimen,
  round,
  dimension,
  countOf,
  setAnnouncement,
  keep,
  undo,
  parts,
  announcement,
}: GaugeColumnProps) {
  return (
    <div className="grid gap-2">
      <OperatorChoice
        operators={operators}
        operator={operator}
        setOperator={setOperator}
        setAsked={setAsked}
      />
      {isDone ? (
        <p className="sheet p-4" role="status">
          {operator} has read every part {trials} times.{' '}
          {!isAllRead ? (
            'The next operator, please.'
          ) : waiting?.length === 0 ? (
            <a href={`/studies/${studyId}/instruments/${String(instrument.instrument_id)}`}>
              All have: see what the instrument is worth.
            </a>
          ) : (
            'All have; what they read is on its way to the server.'
          )}
        </p>
      ) : (
        <GaugeEntry
          operator={operator}
          codeOf={codeOf}
          specimen={specimen}
          round={round}
          trials={trials}
          dimension={dimension}
          countOf={countOf}
          instrument={instrument}
          setAnnouncement={setAnnouncement}
          keep={keep}
          undo={undo}
          parts={parts}
          setAsked={setAsked}
        />
      )}
      <p role="status" className="min-h-5 px-1">
        {announcement}
      </p>
    </div>
  );
}

interface GaugeEntryProps {
  operator: string;
  codeOf: (id: string) => string;
  specimen: string;
  round: number;
  trials: number;
  dimension: BenchDimension;
  countOf: (one: string, specimen: string) => number;
  instrument: GaugeBenchProps['instrument'];
  setAnnouncement: Dispatch<SetStateAction<string>>;
  keep: (value_mm: number) => void;
  undo: () => void;
  parts: GaugeBenchProps['parts'];
  setAsked: Dispatch<SetStateAction<string | null>>;
}

/** Whose turn, with which part, and the field for the reading. */
function GaugeEntry({
  operator,
  codeOf,
  specimen,
  round,
  trials,
  dimension,
  countOf,
  instrument,
  setAnnouncement,
  keep,
  undo,
  parts,
  setAsked,
}: GaugeEntryProps) {
  return (
    <>
      <p className="px-1 text-base">
        {operator} takes part <b className="font-mono">{codeOf(specimen)}</b>, round {round + 1} of{' '}
        {trials}
      </p>
      <ReadingField
        dimension={dimension}
        key={`${operator}/${specimen}/${countOf(operator, specimen)}`}
        earlier={[]}
        zero_mm={Number(instrument.zero_mm ?? 0)}
        onKeep={(value) => {
          setAnnouncement('');
          keep(value);
        }}
        onCommand={(command) => {
          if (command === 'undo') undo();
        }}
        onCode={(text) => {
          const found = parts.find(
            (part) => part.code.toLowerCase() === text.toLowerCase() || part.specimen_id === text,
          );
          if (!found) return false;
          if (countOf(operator, found.specimen_id) > round) {
            setAnnouncement(`${found.code} was read in this round already.`);
          } else setAsked(found.specimen_id);
          return true;
        }}
        onTyping={() => undefined}
        onPaste={() => setAnnouncement('One reading at a time here.')}
      />
    </>
  );
}

interface GaugeCountsProps {
  operators: string[];
  parts: GaugeBenchProps['parts'];
  isDone: boolean;
  specimen: string;
  countOf: (one: string, specimen: string) => number;
  trials: number;
}

/** What has been read of which part by whom. */
function GaugeCounts({ operators, parts, isDone, specimen, countOf, trials }: GaugeCountsProps) {
  return (
    <section className="min-w-0 overflow-x-auto sheet" aria-label="What is read">
      <Leaving>
        <table className="w-full">
          <thead>
            <tr className="border-b border-line">
              <th className="th">part</th>
              {operators.map((one) => (
                <th key={one} className="th">
                  {one}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {parts.map((part) => (
              <tr
                key={part.specimen_id}
                className={
                  'border-b border-line-soft ' +
                  `${!isDone && part.specimen_id === specimen ? 'bg-plum-soft' : ''}`
                }
              >
                <th scope="row" className="px-2 py-1 text-left font-mono font-normal">
                  {part.code}
                </th>
                {operators.map((one) => {
                  const count = countOf(one, part.specimen_id);
                  return (
                    <td key={one} className="px-2 font-mono">
                      <span className="sr-only">{count} read</span>
                      <span aria-hidden="true">
                        {'●'.repeat(count)}
                        {'○'.repeat(Math.max(0, trials - count))}
                      </span>
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </Leaving>
    </section>
  );
}

interface GaugeReadingsGiven {
  setCounts: Dispatch<SetStateAction<Record<string, number>>>;
  operator: string;
  specimen: string;
  setKept: Dispatch<SetStateAction<{ id: string; key: string }[]>>;
  setAsked: Dispatch<SetStateAction<string | null>>;
  dimension: BenchDimension;
  countOf: (one: string, specimen: string) => number;
  instrument: GaugeBenchProps['instrument'];
  studyId: string;
  kept: { id: string; key: string }[];
  setAnnouncement: Dispatch<SetStateAction<string>>;
}

/** Keeps readings and takes the last one back. */
function useGaugeReadings({
  setCounts,
  operator,
  specimen,
  setKept,
  setAsked,
  dimension,
  countOf,
  instrument,
  studyId,
  kept,
  setAnnouncement,
}: GaugeReadingsGiven) {
  const add = (key: string, by: number) =>
    setCounts((all) => ({ ...all, [key]: (all[key] ?? 0) + by }));
  const keep = (value_mm: number) => {
    const id = uuid();
    const key = `${operator} ${specimen}`;
    add(key, 1);
    setKept((all) => [...all, { id, key }]);
    setAsked(null);
    const content = {
      reading_id: id,
      specimen_id: specimen,
      dimension_id: dimension.id,
      value_mm,
      operator,
      trial: countOf(operator, specimen) + 1,
      at: localIso(new Date()),
      instrument_id: instrument.instrument_id,
    };
    const path = `/studies/${studyId}/readings`;
    void enqueue({ id, method: 'POST', path, content }).then(sendWaiting);
  };
  const undo = () => {
    const last = kept.at(-1);
    if (!last) return setAnnouncement('Nothing to undo in this session.');
    add(last.key, -1);
    setKept((all) => all.slice(0, -1));
    const path = `/studies/${studyId}/readings/${last.id}`;
    const content = { at: localIso(new Date()) };
    void enqueue({ id: uuid(), method: 'DELETE', path, content }).then(sendWaiting);
    setAnnouncement('The last entry was taken back.');
  };
  return { keep, undo };
}

interface OperatorChoiceProps {
  operators: string[];
  operator: string;
  setOperator: Dispatch<SetStateAction<string>>;
  setAsked: Dispatch<SetStateAction<string | null>>;
}

/** Whose turn. */
function OperatorChoice({ operators, operator, setOperator, setAsked }: OperatorChoiceProps) {
  return (
    <div className="flex flex-wrap gap-2" role="group" aria-label="Whose turn">
      {operators.map((one) => (
        <button
          key={one}
          type="button"
          className={`action ${one === operator ? 'action-main' : ''}`}
          aria-pressed={one === operator}
          onClick={() => {
            setOperator(one);
            setAsked(null);
          }}
        >
          {one}
        </button>
      ))}
    </div>
  );
}

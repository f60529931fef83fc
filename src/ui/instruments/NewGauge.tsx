import { useState, type SetStateAction, type Dispatch } from 'react';
import { v7 as uuid } from 'uuid';
import { callApi, failureText } from '../kit/request';
import { readNumber } from '../lib/entry';

interface NewGaugeProps {
  studyId: string;
  instrumentId: string;
  /** By `artefact/dimension`. */
  dimensions: readonly { key: string; name: string }[];
  specimens: readonly { id: string; code: string; artefact: string }[];
}

/** Usual size of a gauge study: enough to see, not too many to do. */
const USUAL = { parts: '5', trials: '3' };

/** Plans a gauge study: which dimension, how many parts, who, how often. */
export function NewGauge({ studyId, instrumentId, dimensions, specimens }: NewGaugeProps) {
  const [key, setKey] = useState(dimensions[0]?.key ?? '');
  const [parts, setParts] = useState(USUAL.parts);
  const [trials, setTrials] = useState(USUAL.trials);
  const [operators, setOperators] = useState('');
  const [message, setMessage] = useState<string | null>(null);
  const [artefact = '', dimension = ''] = key.split('/');
  const own = specimens.filter((one) => one.artefact === artefact);
  const whole = (typed: string): number => {
    const entry = readNumber(typed);
    return 'value' in entry && Number.isInteger(entry.value) ? Number(entry.value) : NaN;
  };
  const people = [...new Set(operators.split(/[\s,]+/).filter(Boolean))];
  const fault = !(whole(parts) >= 2)
    ? 'At least two parts.'
    : whole(parts) > own.length
      ? `There are only ${own.length} specimens of this artefact.`
      : !(whole(trials) >= 2)
        ? 'At least two readings each.'
        : people.length < 2
          ? 'At least two people, by their initials.'
          : null;
  const plan = async () => {
    const count = whole(parts);
    // Spread over all there are, so that the parts differ as much as parts do.
    const chosen = Array.from(
      { length: count },
      (_, at) => own[Math.floor((at * own.length) / count)]?.id ?? '',
    );
    const row = {
      gauge_plan_id: uuid(),
      instrument_id: instrumentId,
      artefact_id: artefact,
      dimension_id: dimension,
      specimens: chosen.join(' '),
      operators: people.join(' '),
      trials: whole(trials),
    };
    try {
      await callApi('POST', `/studies/${studyId}/rows/gauge_plans`, row);
      location.assign(`/studies/${studyId}/measure/gauge?plan=${row.gauge_plan_id}`);
    } catch (error) {
      setMessage(failureText(error, 'It could not be saved.'));
    }
  };
  if (dimensions.length === 0) return null;
  return (
    <GaugeForm
      fault={fault}
      setMessage={setMessage}
      plan={plan}
      dimension={key}
      setDimension={setKey}
      dimensions={dimensions}
      parts={parts}
      setParts={setParts}
      operators={operators}
      setOperators={setOperators}
      trials={trials}
      setTrials={setTrials}
      message={message}
    />
  );
}

interface GaugeFormProps {
  fault: string | null;
  setMessage: Dispatch<SetStateAction<string | null>>;
  plan: () => Promise<void>;
  dimension: string;
  setDimension: (key: string) => void;
  dimensions: NewGaugeProps['dimensions'];
  parts: string;
  setParts: Dispatch<SetStateAction<string>>;
  operators: string;
  setOperators: Dispatch<SetStateAction<string>>;
  trials: string;
  setTrials: Dispatch<SetStateAction<string>>;
  message: string | null;
}

/** How many parts, how often, by whom. */
function GaugeForm({
  fault,
  setMessage,
  plan,
  dimension,
  setDimension,
  dimensions,
  parts,
  setParts,
  operators,
  setOperators,
  trials,
  setTrials,
  message,
}: GaugeFormProps) {
  return (
    <form
      className="flex flex-wrap items-end gap-3 p-3"
      aria-label="New gauge study"
      onSubmit={(event) => {
        event.preventDefault();
        if (fault) setMessage(fault);
        else void plan();
      }}
    >
      <GaugeDimension dimension={dimension} setDimension={setDimension} dimensions={dimensions} />
      <label className="text-xs text-ink-2">
        parts
        <input
          className="block field w-20"
          inputMode="numeric"
          value={parts}
          onChange={(event) => setParts(event.target.value)}
        />
      </label>
      <label className="text-xs text-ink-2">
        people (initials)
        <input
          className="block field w-32"
          value={operators}
          placeholder="KM TS"
          onChange={(event) => setOperators(event.target.value)}
        />
      </label>
      <label className="text-xs text-ink-2">
        readings each
        <input
          className="block field w-20"
          inputMode="numeric"
          value={trials}
          onChange={(event) => setTrials(event.target.value)}
        />
      </label>
      <button type="submit" className="action">
        Plan a gauge study
      </button>
      {message && (
        <p role="alert" className="w-full text-xs text-warn">
          {message}
        </p>
      )}
    </form>
  );
}

interface GaugeDimensionProps {
  dimension: string;
  setDimension: (key: string) => void;
  dimensions: NewGaugeProps['dimensions'];
}

/** Which dimension is measured again and again. */
function GaugeDimension({ dimension, setDimension, dimensions }: GaugeDimensionProps) {
  return (
    <label className="text-xs text-ink-2">
      dimension
      <select
        className="block field"
        value={dimension}
        onChange={(event) => setDimension(event.target.value)}
      >
        {dimensions.map((one) => (
          <option key={one.key} value={one.key}>
            {one.name}
          </option>
        ))}
      </select>
    </label>
  );
}

import { useRef, useState } from 'react';
import type { StudyMeta } from '../../core/model/study';
import { readAgain } from '../kit/leave';
import { callApi, failureText } from '../kit/request';
import { useSerialQueue } from '../kit/use-serial-queue';
import { useLatest } from '../kit/use-latest';
import { readNumber } from '../lib/entry';

interface CostParametersProps {
  studyId: string;
  cost: StudyMeta['cost'];
  version: number;
}

const FIELDS = [
  ['tariff_per_kwh', 'energy, per kWh'],
  ['wage_per_h', 'wage, per h'],
  ['lifetime_h', 'a machine’s life, h'],
] as const;

/** What the cost rests on besides the evidence, changed in place with its effect at once. */
export function CostParameters({ studyId, cost, version }: CostParametersProps) {
  const [message, setMessage] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(false);
  const { shown: known, read, change } = useLatest(cost);
  const inTurn = useSerialQueue();
  const latestVersion = useRef(version);
  const keep = (more: Partial<NonNullable<StudyMeta['cost']>>) => {
    change((now) => ({ ...now, ...more }));
    setBusy(true);
    setMessage(null);
    return inTurn(async () => {
      try {
        const { row_version } = await callApi<{ row_version: number }>(
          'PATCH',
          `/studies/${studyId}`,
          { version: latestVersion.current, change: { cost: read() } },
        );
        latestVersion.current = row_version;
        void readAgain();
      } catch (error) {
        setBusy(false);
        setMessage(failureText(error, 'The figure was not saved.'));
      }
    });
  };
  return (
    <form
      className="mb-3 flex flex-wrap items-end gap-3 sheet px-3 py-2"
      aria-label="What the cost rests on"
      onSubmit={(event) => event.preventDefault()}
    >
      <Text
        label="currency"
        value={known?.currency ?? ''}
        onKeep={(currency) => void keep({ currency: currency.toUpperCase() || null })}
      />
      {FIELDS.map(([key, label]) => (
        <Text
          key={key}
          label={label}
          value={known?.[key] == null ? '' : String(known[key])}
          isNumber
          onKeep={(text) => {
            const entry = readNumber(text);
            if ('value' in entry) void keep({ [key]: entry.value });
            else setMessage(entry.fault);
          }}
        />
      ))}
      <span className="text-xs text-ink-2" role="status">
        {isBusy
          ? 'Saving; the page recalculates when you leave the field.'
          : 'Enter saves and recalculates.'}
      </span>
      {message && (
        <span role="alert" className="text-warn">
          {message}
        </span>
      )}
    </form>
  );
}

interface TextProps {
  label: string;
  value: string;
  isNumber?: boolean;
  onKeep: (text: string) => void;
}

function Text({ label, value, isNumber, onKeep }: TextProps) {
  const [text, setText] = useState(value);
  const commit = () => {
    if (text.trim() !== value) onKeep(text.trim());
  };
  return (
    <label className="text-xs text-ink-2">
      {label}
      <input
        className={`block field ${isNumber ? 'w-28 text-right font-mono' : 'w-20'}`}
        inputMode={isNumber ? 'decimal' : 'text'}
        value={text}
        onChange={(event) => setText(event.target.value)}
        onBlur={commit}
        onKeyDown={(event) => {
          if (event.key === 'Enter') commit();
        }}
      />
    </label>
  );
}

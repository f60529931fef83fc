import { type ComponentProps, useId, useState, type SetStateAction, type Dispatch } from 'react';
import {
  readDuration,
  readNumber,
  withOffset,
  writeDuration,
  writeNumber,
  type DecimalSign,
} from '../lib/entry';
import { useDecimalSign } from '../lib/use-decimal-sign';
import type { FieldSpec } from './fields';
import type { Value } from './use-record';

interface FieldInputProps {
  field: FieldSpec;
  value: Value;
  onCommit: (value: Value) => void;
  issue?: string | undefined;
  autoFocus?: boolean;
  /** Tells on every key, for forms that are sent as a whole. */
  isEager?: boolean;
  /** Told whether what stands in the field can be read. */
  onFault?: (isFaulty: boolean) => void;
}

/** In these a single point or comma is a decimal sign: they come from calipers and scales. */
const DECIMAL_UNITS: ReadonlySet<string | null> = new Set(['mm', 'g', 'm', '%', '°C', 'dB(A)']);

/** A value as its field shows it. */
function show(field: FieldSpec, value: Value, sign: DecimalSign): string {
  if (value === null) return '';
  if (field.kind === 'number') return writeNumber(Number(value), sign);
  if (field.kind === 'duration') return writeDuration(Number(value));
  if (field.kind === 'time') return String(value).slice(0, 19);
  return String(value);
}

/** What stands in a field, as a value; or what is wrong with it. */
function read(
  field: FieldSpec,
  typed: string,
  before: Value,
): { value: Value } | { fault: string; choices?: readonly number[] } {
  if (field.kind === 'number') return readNumber(typed, { asks: !DECIMAL_UNITS.has(field.unit) });
  if (field.kind === 'duration') return readDuration(typed);
  if (typed.trim() === '') return { value: null };
  if (field.kind === 'time') {
    return { value: withOffset(typed, typeof before === 'string' ? before : null) };
  }
  return { value: typed };
}

interface Fault {
  fault: string;
  /** What an unclear number could be. */
  choices?: readonly number[];
}

/** One field of a record: saved when it is left or Enter is pressed. */
export function FieldInput(props: FieldInputProps) {
  const { field, value, onCommit, issue, autoFocus = false, isEager = false, onFault } = props;
  const id = useId();
  const sign = useDecimalSign();
  // Null as long as nobody has typed: the field shows its value.
  const { setTyped, typed, fault, setFault, message, take, common, change } = useTyped({
    field,
    value,
    sign,
    isEager,
    issue,
    onFault,
    onCommit,
    id,
    autoFocus,
  });
  return (
    <div className={field.kind === 'time' ? 'max-md:col-span-2' : undefined}>
      <label htmlFor={id} className="block text-xs text-ink-2 first-letter:uppercase">
        {field.label}
        {field.unit && <span>{` (${field.unit})`}</span>}
        {field.required && <span aria-hidden="true"> *</span>}
      </label>
      {field.kind === 'choice' ? (
        <ChoiceInput
          common={common}
          typed={typed}
          setTyped={setTyped}
          take={take}
          field={field}
          value={value}
        />
      ) : field.kind === 'long' ? (
        <textarea
          {...common}
          rows={3}
          value={typed}
          onChange={(event) => change(event.target.value)}
          onBlur={() => take(typed)}
        />
      ) : (
        <input
          {...common}
          type={field.kind === 'time' ? 'datetime-local' : 'text'}
          step={field.kind === 'time' ? 1 : undefined}
          inputMode={field.kind === 'number' ? 'decimal' : undefined}
          autoComplete="off"
          value={typed}
          onChange={(event) => change(event.target.value)}
          onBlur={() => take(typed)}
          onKeyDown={(event) => event.key === 'Enter' && !isEager && take(typed)}
        />
      )}
      {message && (
        <FieldIssue
          id={id}
          message={message}
          fault={fault}
          setTyped={setTyped}
          setFault={setFault}
          onFault={onFault}
          onCommit={onCommit}
          sign={sign}
        />
      )}
    </div>
  );
}

interface TypedGiven {
  field: FieldSpec;
  value: Value;
  sign: DecimalSign;
  isEager: boolean;
  issue: string | undefined;
  onFault: ((isFaulty: boolean) => void) | undefined;
  onCommit: FieldInputProps['onCommit'];
  id: string;
  autoFocus: boolean;
}

/** What is typed into a field, read as its kind, with what is wrong with it. */
function useTyped({
  field,
  value,
  sign,
  isEager,
  issue,
  onFault,
  onCommit,
  id,
  autoFocus,
}: TypedGiven) {
  const [draft, setTyped] = useState<string | null>(null);
  const typed = draft ?? show(field, value, sign);
  const [fault, setFault] = useState<Fault | null>(null);
  const [seen, setSeen] = useState(value);
  if (seen !== value) {
    // Another value came from outside, or was just taken: the field shows it as it is written.
    setSeen(value);
    // While it is typed, it stays as it is typed.
    const own = isEager ? read(field, typed, seen) : null;
    if (!own || 'fault' in own || own.value !== value) {
      setTyped(null);
      setFault(null);
    }
  }
  const message = fault?.fault ?? issue;

  const take = (text: string) => {
    const entry = read(field, text, value);
    if ('fault' in entry) {
      setFault(entry);
      onFault?.(true);
      return;
    }
    if (entry.value === null && field.required) {
      setFault({ fault: 'must hold a value' });
      onFault?.(true);
      return;
    }
    setFault(null);
    onFault?.(false);
    if (entry.value !== value) onCommit(entry.value);
  };
  const common = {
    id,
    className: 'field',
    autoFocus,
    'aria-invalid': message ? true : undefined,
    'aria-describedby': message ? `${id}-issue` : undefined,
    required: field.required,
  };
  const change = (text: string) => {
    setTyped(text);
    if (isEager) take(text);
  };
  return { setTyped, typed, fault, setFault, message, take, common, change };
}

interface FieldIssueProps {
  id: string;
  message: string;
  fault: Fault | null;
  setTyped: Dispatch<SetStateAction<string | null>>;
  setFault: Dispatch<SetStateAction<Fault | null>>;
  onFault: ((isFaulty: boolean) => void) | undefined;
  onCommit: FieldInputProps['onCommit'];
  sign: DecimalSign;
}

/** What is wrong with what was typed. */
function FieldIssue({
  id,
  message,
  fault,
  setTyped,
  setFault,
  onFault,
  onCommit,
  sign,
}: FieldIssueProps) {
  return (
    <p id={`${id}-issue`} role="alert" className="text-xs text-warn">
      {message}
      {fault?.choices?.map((choice) => (
        <button
          key={choice}
          type="button"
          className="ml-2 action"
          onClick={() => {
            setTyped(null);
            setFault(null);
            onFault?.(false);
            onCommit(choice);
          }}
        >
          {writeNumber(choice, sign)}
        </button>
      ))}
    </p>
  );
}

interface ChoiceInputProps {
  common: ComponentProps<'select'>;
  typed: string;
  setTyped: Dispatch<SetStateAction<string | null>>;
  take: (text: string) => void;
  field: FieldSpec;
  value: Value;
}

/** One of a few. */
function ChoiceInput({ common, typed, setTyped, take, field, value }: ChoiceInputProps) {
  return (
    <select
      {...common}
      value={typed}
      onChange={(event) => {
        setTyped(event.target.value);
        take(event.target.value);
      }}
    >
      {(!field.required || value === null) && <option value="">not known</option>}
      {field.options?.map((option) => (
        <option key={option.value} value={option.value}>
          {option.label}
        </option>
      ))}
    </select>
  );
}

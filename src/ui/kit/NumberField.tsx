import { useState } from 'react';
import { readNumber } from '../lib/entry';
import { useDecimalSign } from '../lib/use-decimal-sign';

interface NumberFieldProps {
  /** What it is called for those who do not see what stands around it. */
  label?: string;
  value: number;
  /** As it is shown; as it is where not given. */
  show?: (value: number) => string;
  className?: string;
  /** Whether a number of this kind may stand there. */
  isAllowed?: (value: number) => boolean;
  onSave: (value: number) => void;
}

/** A number that is saved by Enter or by leaving its field; what cannot be read stays there and is marked. */
export function NumberField(props: NumberFieldProps) {
  const { label, value, show = String, className = '', isAllowed = () => true, onSave } = props;
  const sign = useDecimalSign();
  const [draft, setDraft] = useState<string | null>(null);
  const entry = draft === null ? { value } : readNumber(draft);
  const read =
    'value' in entry && entry.value !== null && isAllowed(entry.value) ? entry.value : null;
  const save = () => {
    if (draft === null || read === null) return;
    setDraft(null);
    if (read !== value) onSave(read);
  };
  const plain = show(value);
  return (
    <input
      {...(label !== undefined && { 'aria-label': label })}
      className={`field text-right font-mono ${className}`}
      inputMode="decimal"
      aria-invalid={draft !== null && read === null}
      value={draft ?? (sign === ',' ? plain.replace('.', ',') : plain)}
      onChange={(event) => setDraft(event.target.value)}
      onBlur={save}
      onKeyDown={(event) => {
        if (event.key === 'Enter') save();
        if (event.key === 'Escape' && draft !== null) {
          event.stopPropagation();
          setDraft(null);
        }
      }}
    />
  );
}
